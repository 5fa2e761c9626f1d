import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";
import { Problem } from "../../api/problem";
import { type Screen, signScreen } from "../../api/screens";
import { faultAt, ProblemNote } from "../../components/ProblemNote";
import { useSession } from "../../components/session";
import { TextField } from "../../components/TextField";

interface Props {
  screen: Screen;
  revision: number;
  onClose: () => void;
  onSigned: () => void;
  onStale: () => void;
}

/** The password again: an open screen is not a signature. */
export function SignDialog({ screen, revision, onClose, onSigned, onStale }: Props) {
  const session = useSession();
  const [password, setPassword] = useState("");
  const sign = useMutation({
    mutationFn: () => signScreen(screen.record.id, revision, password),
    onSuccess: onSigned,
    onError: (error) => {
      if (error instanceof Problem && error.code === "newer-revision") onStale();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    sign.mutate();
  };
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
        <TextField
          label="Your password"
          type="password"
          value={password}
          onChange={setPassword}
          fault={faultAt(sign.error, "password")}
          autoComplete="current-password"
          autoFocus
          required
        />
        <ProblemNote error={sign.error} known={["password"]} />
        <div className="d-flex gap-2">
          <Button type="submit" disabled={sign.isPending}>
            Sign
          </Button>
          <Button variant="quiet" onClick={onClose}>
            Cancel
          </Button>
        </div>
      </Modal.Body>
    </Modal>
  );
}
