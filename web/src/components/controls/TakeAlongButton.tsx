import { useState } from "react";
import Button from "react-bootstrap/Button";
import type { Whose } from "../../api/exports";
import { part } from "../base/part";
import { isLicensed, useSession } from "../base/session";

const { Place: TakeAlong } = part(
  () => import("./TakeAlong"),
  () => null,
);

interface Props {
  whose: Whose;
  called: string;
}

/** For those who may hand over. */
export function TakeAlongButton({ whose, called }: Props) {
  const [open, setOpen] = useState(false);
  if (!isLicensed(useSession())) return null;
  return (
    <>
      <Button variant="quiet" onClick={() => setOpen(true)}>
        Take along<span className="only-read-aloud"> {called}</span>…
      </Button>
      {open ? <TakeAlong whose={whose} called={called} onClose={() => setOpen(false)} /> : null}
    </>
  );
}
