import { useState } from "react";
import Button from "react-bootstrap/Button";
import type { Bench } from "../../state/screen/bench";
import { leaveOut } from "../../state/screen/route";
import styles from "./route.module.css";

interface Props {
  bench: Bench;
  planned: readonly string[];
  test: string;
  name: string;
  onDone: () => void;
}

const REASONS = ["not needed today", "too sore", "no time"];

/** Out of this screen, with the reason: it is kept, and the reading still says what nobody looked at. */
export function LeaveOut({ bench, planned, test, name, onDone }: Props) {
  const place = { test: "route", side: null, key: "", field: `left_out.${test}` };
  const [open, setOpen] = useState(bench.textDraft(place) !== null);
  const [own, setOwn] = useState(bench.textDraft(place) ?? "");
  const leave = (reason: string) => {
    bench.write(leaveOut(planned, test, reason));
    onDone();
  };
  if (!open) {
    return (
      <button
        type="button"
        className="plate"
        aria-label={`Leave out: ${name}`}
        onClick={() => setOpen(true)}
      >
        Leave out
      </button>
    );
  }
  return (
    <fieldset className={styles["leave-out"]} aria-label={`Why leave out: ${name}`}>
      {REASONS.map((reason) => (
        <button key={reason} type="button" className="plate" onClick={() => leave(reason)}>
          {reason}
        </button>
      ))}
      <label>
        <span className="only-read-aloud">Another reason</span>
        <input
          className="form-control"
          placeholder="another reason"
          value={own}
          maxLength={200}
          onChange={(event) => {
            setOwn(event.target.value);
            bench.keepText(place, event.target.value);
          }}
        />
      </label>
      <Button variant="quiet" disabled={!own.trim()} onClick={() => leave(own.trim())}>
        Keep reason
      </Button>
    </fieldset>
  );
}
