import { useMutation } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import { exportRecord } from "../../api/exports";
import type { Screen } from "../../api/screens";
import { saveFile } from "../base/saveFile";
import { isLicensed, useSession } from "../base/session";
import { ProblemNote } from "../marks/ProblemNote";

/** The screen as a file of the open format. */
export function Download({ screen, onTaken }: { screen: Screen; onTaken?: () => void }) {
  const session = useSession();
  const download = useMutation({
    mutationFn: () => exportRecord(screen.record.id),
    onSuccess: (file) => {
      saveFile(file, fileName(screen));
      onTaken?.();
    },
  });
  if (!isLicensed(session)) return null;
  return (
    <>
      <Button variant="quiet" disabled={download.isPending} onClick={() => download.mutate()}>
        Download the screen
      </Button>
      <ProblemNote error={download.error} />
    </>
  );
}

const fileName = (screen: Screen): string =>
  `north-stride-${screen.athlete.ref}-${screen.record.date}.json`;
