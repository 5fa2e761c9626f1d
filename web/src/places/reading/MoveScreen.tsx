import { useState } from "react";
import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";
import type { Screen } from "../../api/screens";
import { useSession } from "../../components/base/session";
import { AthleteChoice } from "../../components/controls/AthleteChoice";
import { DialogButtons } from "../../components/controls/DialogButtons";
import { FormField, useServerForm } from "../../components/controls/form";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { moveScreen } from "./queries";

interface Props {
  screen: Screen;
  onMoved: () => void;
}

/** For owners: a screen that was written for the wrong athlete goes to the right one. */
export function MoveScreen({ screen, onMoved }: Props) {
  const session = useSession();
  const [open, setOpen] = useState(false);
  if (session.role !== "owner") return null;
  return (
    <>
      <Button variant="quiet" onClick={() => setOpen(true)}>
        Wrong athlete: move it
      </Button>
      {open ? (
        <MoveDialog
          screen={screen}
          onClose={() => setOpen(false)}
          onMoved={() => {
            setOpen(false);
            onMoved();
          }}
        />
      ) : null}
    </>
  );
}

function MoveDialog({ screen, onClose, onMoved }: Props & { onClose: () => void }) {
  const { form, fields, submit, busy, error } = useServerForm({
    defaults: { athlete_id: "", reason: "", password: "" },
    send: (values) => moveScreen(screen.record.id, values),
    onDone: onMoved,
  });
  return (
    <Modal show centered onHide={onClose} aria-labelledby="move-title">
      <Modal.Body as="form" onSubmit={submit}>
        <h2 id="move-title" className="fs-4 mb-2">
          Move this screen away from {screen.athlete.name}
        </h2>
        <AthleteChoice
          find="Find the right athlete"
          label="To"
          except={screen.athlete.id}
          {...form.register("athlete_id")}
        />
        <FormField form={form} name="reason" label="Why" required />
        <FormField
          form={form}
          name="password"
          label="Your password"
          type="password"
          autoComplete="current-password"
          required
        />
        <ProblemNote error={error} known={fields.filter((field) => field !== "athlete_id")} />
        <DialogButtons does="Move" busy={busy} onCancel={onClose} />
      </Modal.Body>
    </Modal>
  );
}
