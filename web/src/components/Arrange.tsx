import { useState } from "react";
import Button from "react-bootstrap/Button";
import { arrangeAction, type Reading, type Screen } from "../api/screens";
import { arrangementOf } from "../state/urgent";
import { dayWords } from "../state/wording";
import { FormField, useServerForm } from "./form";
import { ProblemNote } from "./ProblemNote";
import { isLicensed, useSession, useToday } from "./session";

interface Props {
  screen: Screen;
  action: Reading["actions"][number];
  onChanged: () => void;
}

/** Who saw to an action, and when. */
export default function Arrange(props: Props) {
  const session = useSession();
  const [open, setOpen] = useState(false);
  const done = arrangementOf(props.screen, props.action);
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
  return <ArrangeForm {...props} onClose={() => setOpen(false)} />;
}

function ArrangeForm({ screen, action, onChanged, onClose }: Props & { onClose: () => void }) {
  const today = useToday();
  const { form, fields, submit, busy, error } = useServerForm({
    defaults: { id: crypto.randomUUID() as string, on: today, note: "" },
    send: (values) =>
      arrangeAction(screen.record.id, { ...values, action: action.code, side: action.side }),
    onDone: () => {
      onClose();
      onChanged();
    },
  });
  return (
    <form onSubmit={submit}>
      <FormField form={form} name="on" label="For which day" type="date" />
      <FormField form={form} name="note" label="How" autoFocus />
      <ProblemNote error={error} known={fields} />
      <Button type="submit" disabled={busy}>
        Keep
      </Button>{" "}
      <Button variant="quiet" onClick={onClose}>
        Cancel
      </Button>
    </form>
  );
}
