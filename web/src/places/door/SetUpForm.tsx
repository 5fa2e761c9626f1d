import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import Button from "react-bootstrap/Button";
import { type Session, setUp } from "../../api/session";
import { faultAt, ProblemNote } from "../../components/ProblemNote";
import { TextField } from "../../components/TextField";

const FIELDS = ["clinic", "time_zone", "name", "login", "password"] as const;
type Field = (typeof FIELDS)[number];

const LABELS: Record<Field, string> = {
  clinic: "Name of the clinic or club",
  time_zone: "Time zone",
  name: "Your name, as it signs",
  login: "Name you sign in with",
  password: "Password, ten characters or more",
};

/** The first visitor makes the clinic and becomes its owner. */
export function SetUpForm({ onEntered }: { onEntered: (session: Session) => void }) {
  const [values, setValues] = useState<Record<Field, string>>({
    clinic: "",
    time_zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    name: "",
    login: "",
    password: "",
  });
  const make = useMutation({ mutationFn: () => setUp(values), onSuccess: onEntered });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    make.mutate();
  };
  return (
    <form onSubmit={submit}>
      <h2 className="mb-1 fs-4">Nobody is here yet</h2>
      <p className="muted">Make the clinic and its first owner. The owner adds everyone else.</p>
      {FIELDS.map((field) => (
        <TextField
          key={field}
          label={LABELS[field]}
          type={field === "password" ? "password" : "text"}
          value={values[field]}
          onChange={(value) => setValues({ ...values, [field]: value })}
          fault={faultAt(make.error, field)}
          autoComplete={field === "password" ? "new-password" : "off"}
          required
        />
      ))}
      <ProblemNote error={make.error} known={FIELDS} />
      <Button type="submit" disabled={make.isPending}>
        Make the clinic
      </Button>
    </form>
  );
}
