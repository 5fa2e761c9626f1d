import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import Button from "react-bootstrap/Button";
import { arrangeAction, type Reading, type Screen } from "../../api/screens";
import { faultAt, ProblemNote } from "../../components/ProblemNote";
import { isLicensed, useSession, useToday } from "../../components/session";
import { TextField } from "../../components/TextField";
import { dayWords } from "../../state/wording";

interface Props {
  screen: Screen;
  action: Reading["actions"][number];
  onChanged: () => void;
}

export const arrangementOf = (screen: Screen, action: Props["action"]) =>
  screen.arrangements.find((item) => item.action === action.code && item.side === action.side);

/** Who saw to an action, and when. */
export function Arrange({ screen, action, onChanged }: Props) {
  const session = useSession();
  const [open, setOpen] = useState(false);
  const [id] = useState(() => crypto.randomUUID());
  const [on, setOn] = useState(useToday());
  const [note, setNote] = useState("");
  const save = useMutation({
    mutationFn: () =>
      arrangeAction(screen.record.id, { id, action: action.code, side: action.side, on, note }),
    onSuccess: () => {
      setOpen(false);
      onChanged();
    },
  });
  const done = arrangementOf(screen, action);
  if (done) {
    return (
      <span>
        Arranged by {done.by} for {dayWords(done.on)}
        {done.note ? `: ${done.note}` : ""}
      </span>
    );
  }
  if (!isLicensed(session)) return <span>Not arranged yet.</span>;
  if (!open) {
    return (
      <Button variant="quiet" size="sm" onClick={() => setOpen(true)}>
        Arrange
      </Button>
    );
  }
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <form onSubmit={submit}>
      <TextField
        label="For which day"
        type="date"
        value={on}
        onChange={setOn}
        fault={faultAt(save.error, "on")}
      />
      <TextField label="How" value={note} onChange={setNote} autoFocus />
      <ProblemNote error={save.error} known={["on"]} />
      <Button type="submit" disabled={save.isPending}>
        Keep
      </Button>{" "}
      <Button variant="quiet" onClick={() => setOpen(false)}>
        Cancel
      </Button>
    </form>
  );
}
