import Modal from "react-bootstrap/Modal";
import type { Problem } from "../../api/problem";
import { ProblemNote } from "../marks/ProblemNote";
import { DialogButtons } from "./DialogButtons";
import { FormField, useServerForm } from "./form";

export interface Asked {
  reason: string;
  password: string;
}

interface Props {
  title: string;
  /** What it does, before it is done. */
  children: React.ReactNode;
  does: string;
  /** Its label, where a reason is asked too. */
  reason?: string;
  send: (asked: Asked) => Promise<unknown>;
  onDone: () => void;
  onClose: () => void;
  onRefused?: (problem: Problem) => void;
  /** The hand begins in what stands above. */
  elsewhere?: boolean;
}

/** For what an open session alone may not do: the password once more, and where it says so a reason. */
export function PasswordDialog(props: Props) {
  const { title, children, does, reason, send, onDone, onClose, onRefused = () => {} } = props;
  const { elsewhere = false } = props;
  const defaults: Asked = { reason: "", password: "" };
  const { form, fields, submit, busy, error } = useServerForm({
    defaults,
    send,
    onDone,
    onRefused,
  });
  return (
    <Modal show centered onHide={onClose} aria-labelledby="password-title">
      <Modal.Body as="form" onSubmit={submit}>
        <h2 id="password-title" className="fs-4 mb-2">
          {title}
        </h2>
        {children}
        {reason ? <FormField form={form} name="reason" label={reason} autoFocus required /> : null}
        <FormField
          form={form}
          name="password"
          label="Your password"
          type="password"
          autoComplete="current-password"
          autoFocus={!reason && !elsewhere}
          required
        />
        <ProblemNote error={error} known={fields} />
        <DialogButtons does={does} busy={busy} onCancel={onClose} />
      </Modal.Body>
    </Modal>
  );
}
