import Button from "react-bootstrap/Button";
import { type Session, signIn } from "../../api/session";
import { FormField, useServerForm } from "../../components/controls/form";
import { ProblemNote } from "../../components/marks/ProblemNote";

/** Name, password, enter: the same at the entry and over a place where a session ended. */
export function NameAndPassword({ onEntered }: { onEntered: (session: Session) => void }) {
  const { form, fields, submit, busy, error } = useServerForm({
    defaults: { login: "", password: "" },
    send: ({ login, password }) => signIn(login, password),
    onDone: onEntered,
  });
  return (
    <form onSubmit={submit}>
      <FormField
        form={form}
        name="login"
        label="Name you sign in with"
        autoComplete="username"
        autoFocus
        required
      />
      <FormField
        form={form}
        name="password"
        label="Password"
        type="password"
        autoComplete="current-password"
        required
      />
      <ProblemNote error={error} known={fields} />
      <Button type="submit" disabled={busy}>
        Sign in
      </Button>
    </form>
  );
}
