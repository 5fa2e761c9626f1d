import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";
import { type Session, signIn } from "../../api/session";
import { ProblemNote } from "../../components/ProblemNote";
import { TextField } from "../../components/TextField";

interface Props {
  session: Session;
  onEntered: (session: Session) => void;
}

/** Over the place where the work stopped: nothing typed is lost, and it goes on right there. */
export function SignInAgain({ session, onEntered }: Props) {
  const [login, setLogin] = useState("");
  const [password, setPassword] = useState("");
  const enter = useMutation({ mutationFn: () => signIn(login, password), onSuccess: onEntered });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    enter.mutate();
  };
  return (
    <Modal show centered backdrop="static" keyboard={false} aria-labelledby="again-title">
      <Modal.Body as="form" onSubmit={submit}>
        <h2 id="again-title" className="fs-4 mb-2">
          Sign in again
        </h2>
        <p>
          Your session has ended. What you typed is kept on this device and is sent once{" "}
          {session.name} is back.
        </p>
        <TextField
          label="Name you sign in with"
          value={login}
          onChange={setLogin}
          autoComplete="username"
          autoFocus
          required
        />
        <TextField
          label="Password"
          type="password"
          value={password}
          onChange={setPassword}
          autoComplete="current-password"
          required
        />
        <ProblemNote error={enter.error} />
        <Button type="submit" disabled={enter.isPending}>
          Sign in
        </Button>
      </Modal.Body>
    </Modal>
  );
}
