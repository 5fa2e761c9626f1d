import Modal from "react-bootstrap/Modal";
import type { Identity, Screen } from "../../api/screens";
import { DialogButtons } from "../../components/DialogButtons";
import { FormField, useServerForm } from "../../components/form";
import { ProblemNote } from "../../components/ProblemNote";
import { useSession } from "../../components/session";
import { partWords } from "../../state/wording";
import { signScreen } from "./queries";

interface Props {
  screen: Screen;
  identity: Identity;
  onClose: () => void;
  onSigned: () => void;
  onStale: () => void;
}

/** The password again: an open screen is not a signature. Signs the reading that was shown, or none. */
export function SignDialog({ screen, identity, onClose, onSigned, onStale }: Props) {
  const session = useSession();
  const { form, fields, submit, busy, error } = useServerForm({
    defaults: { password: "" },
    send: ({ password }) => signScreen(screen.record.id, identity, password),
    onDone: onSigned,
    onRefused: (problem) => {
      if (problem.code === "newer-reading") onStale();
    },
  });
  return (
    <Modal show centered onHide={onClose} aria-labelledby="sign-title">
      <Modal.Body as="form" onSubmit={submit}>
        <h2 id="sign-title" className="fs-4 mb-2">
          Sign the screen of {screen.athlete.name}
        </h2>
        <p>
          {session.name} signs what is shown: the values and this reading are frozen. Findings to
          weigh, not a diagnosis.
        </p>
        <FormField
          form={form}
          name="password"
          label="Your password"
          type="password"
          autoComplete="current-password"
          autoFocus
          required
        />
        <ProblemNote error={error} known={fields} words={partWords} />
        <DialogButtons does="Sign" busy={busy} onCancel={onClose} />
      </Modal.Body>
    </Modal>
  );
}
