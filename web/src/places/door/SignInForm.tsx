import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import Button from "react-bootstrap/Button";
import type { Schema } from "../../api/client";
import { type Session, signIn } from "../../api/session";
import { ProblemNote } from "../../components/ProblemNote";
import { TextField } from "../../components/TextField";

interface Props {
  accounts: Schema["DemoAccount"][];
  onEntered: (session: Session) => void;
}

export function SignInForm({ accounts, onEntered }: Props) {
  const [login, setLogin] = useState("");
  const [password, setPassword] = useState("");
  const enter = useMutation({
    mutationFn: (who: { login: string; password: string }) => signIn(who.login, who.password),
    onSuccess: onEntered,
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    enter.mutate({ login, password });
  };
  return (
    <>
      <form onSubmit={submit}>
        <h2 className="mb-3 fs-4">Sign in</h2>
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
      {accounts.length > 0 ? (
        <div className="demo-accounts">
          <h2>Demo: everyone here is made up</h2>
          {accounts.map((account) => (
            <Button
              key={account.login}
              variant="quiet"
              disabled={enter.isPending}
              onClick={() => enter.mutate(account)}
            >
              <span>Enter as {account.role}</span>
              <span className="muted fw-normal">
                {account.login} · {account.password}
              </span>
            </Button>
          ))}
        </div>
      ) : null}
    </>
  );
}
