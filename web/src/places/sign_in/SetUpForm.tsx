import Button from "react-bootstrap/Button";
import { type Session, setUp } from "../../api/session";
import { FormField, useServerForm } from "../../components/controls/form";
import { ProblemNote } from "../../components/marks/ProblemNote";

const LABELS = {
  clinic: "Name of the clinic or club",
  time_zone: "Time zone",
  name: "Your name, as it signs",
  login: "Name you sign in with",
  password: "Password, ten characters or more",
} as const;
type Field = keyof typeof LABELS;
const FIELDS = Object.keys(LABELS) as Field[];

/** The first visitor makes the clinic and becomes its owner. */
export function SetUpForm({ onEntered }: { onEntered: (session: Session) => void }) {
  const time_zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const { form, submit, busy, error } = useServerForm<Record<Field, string>, Session>({
    defaults: { clinic: "", time_zone, name: "", login: "", password: "" },
    send: setUp,
    onDone: onEntered,
  });
  return (
    <form onSubmit={submit}>
      <h2 className="mb-1 fs-4">Nobody is here yet</h2>
      <p className="muted">Make the clinic and its first owner. The owner adds everyone else.</p>
      {FIELDS.map((name) => (
        <FormField
          key={name}
          form={form}
          name={name}
          label={LABELS[name]}
          type={name === "password" ? "password" : "text"}
          autoComplete={name === "password" ? "new-password" : "off"}
          required
        />
      ))}
      <ProblemNote error={error} known={FIELDS} />
      <Button type="submit" disabled={busy}>
        Make the clinic
      </Button>
    </form>
  );
}
