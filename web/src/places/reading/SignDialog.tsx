import Modal from "react-bootstrap/Modal";
import type { Catalogue } from "../../api/catalogue";
import type { Identity, Reading, Screen } from "../../api/screens";
import { useSession } from "../../components/base/session";
import { DialogButtons } from "../../components/controls/DialogButtons";
import { FormField, useServerForm } from "../../components/controls/form";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { partWords } from "../../state/domain/wording";
import { openItems } from "./before_signing";
import { OpenReasons } from "./OpenReasons";
import { signScreen } from "./queries";

interface Props {
  screen: Screen;
  catalogue: Catalogue;
  reading: Reading;
  identity: Identity;
  refreshing: boolean;
  onClose: () => void;
  onSigned: () => void;
  onStale: () => void;
}

/** First what is open, each with its reason; then the password: the reading that is shown, or none. */
export function SignDialog(props: Props) {
  const { screen, reading, onClose } = props;
  const { actions, tests } = openItems(reading, screen);
  return (
    <Modal show centered onHide={onClose} aria-labelledby="sign-title">
      {actions.length + tests.length > 0 ? (
        <OpenReasons {...props} actions={actions} tests={tests} onKept={props.onStale} />
      ) : (
        <Password {...props} />
      )}
    </Modal>
  );
}

/** The password again: an open screen is not a signature. */
function Password({ screen, identity, refreshing, onClose, onSigned, onStale }: Props) {
  const session = useSession();
  const { form, fields, submit, busy, error } = useServerForm({
    defaults: { password: "" },
    send: ({ password }) => signScreen(screen.record.id, identity, password),
    onDone: onSigned,
    onRefused: (problem) => {
      if (STALE.has(problem.code)) onStale();
    },
  });
  return (
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
      <DialogButtons does="Sign" busy={busy || refreshing} onCancel={onClose} />
    </Modal.Body>
  );
}

const STALE: ReadonlySet<string> = new Set([
  "newer-reading",
  "incomplete",
  "unarranged",
  "two-values",
]);
