import { useState } from "react";
import Button from "react-bootstrap/Button";
import type { Reading, Screen } from "../../api/screens";
import { FormField, useServerForm } from "../../components/form";
import { ProblemNote } from "../../components/ProblemNote";
import { isLicensed, useSession, useToday } from "../../components/session";
import { dayWords } from "../../state/wording";
import { arrangeAction } from "./queries";

interface Props {
  screen: Screen;
  action: Reading["actions"][number];
  onChanged: () => void;
}

export const arrangementOf = (screen: Screen, action: Props["action"]) =>
  screen.arrangements.find((item) => item.action === action.code && item.side === action.side);

/** Who saw to an action, and when. */
export function Arrange(props: Props) {
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
