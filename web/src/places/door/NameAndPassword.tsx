import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import Button from "react-bootstrap/Button";
import { type Session, signIn } from "../../api/session";
import { ProblemNote } from "../../components/ProblemNote";
import { TextField } from "../../components/TextField";

/** Name, password, enter: the same at the door and over a place where a session ended. */
export function NameAndPassword({ onEntered }: { onEntered: (session: Session) => void }) {
  const [login, setLogin] = useState("");
  const [password, setPassword] = useState("");
  const enter = useMutation({ mutationFn: () => signIn(login, password), onSuccess: onEntered });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    enter.mutate();
  };
  return (
    <form onSubmit={submit}>
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
    </form>
  );
}
