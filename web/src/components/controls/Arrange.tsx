import { useState } from "react";
import Button from "react-bootstrap/Button";
import type { ActionOf } from "../../state/domain/arranging";
import { isLicensed, useSession } from "../base/session";
import { ArrangeDialog } from "./ArrangeDialog";

export interface ArrangeProps {
  screen: string;
  action: ActionOf;
  /** Others of the screen that are seen to in the same breath. */
  also?: readonly ActionOf[];
  /** What it is, in words. */
  name: string;
  onChanged: () => void;
  variant?: "quiet" | "urgent";
  /** A day is known already, and can be changed. */
  booked?: boolean;
}

// What a hand would do about it, by how urgent it is.
const ASKS: Record<string, string> = {
  recheck: "Book…",
  train: "Set a date…",
};

/** Opens what can be done about an action. Only licensed people do it; others see that it is open. */
export default function Arrange({ variant = "quiet", booked = false, ...props }: ArrangeProps) {
  const session = useSession();
  const [open, setOpen] = useState(false);
  if (!isLicensed(session)) {
    return variant === "urgent" ? <span>Not arranged yet. Tell a practitioner.</span> : null;
  }
  return (
    <>
      <Button variant={variant} onClick={() => setOpen(true)}>
        {booked ? "Change…" : (ASKS[props.action.urgency] ?? "Arrange…")}
      </Button>
      {open ? (
        <ArrangeDialog
          {...props}
          onClose={() => setOpen(false)}
          onChanged={() => {
            setOpen(false);
            props.onChanged();
          }}
        />
      ) : null}
    </>
  );
}
