import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import Button from "react-bootstrap/Button";
import type { Catalogue } from "../../api/catalogue";
import { amendScreen, type Screen } from "../../api/screens";
import { faultAt, ProblemNote } from "../../components/ProblemNote";
import { isLicensed, useSession } from "../../components/session";
import { TextField } from "../../components/TextField";
import { textOf } from "../../state/parse";
import { readable } from "../../state/wording";

interface Props {
  screen: Screen;
  catalogue: Catalogue;
  onChanged: () => void;
}

/** What arrived after signing waits here until somebody amends with a reason. */
export function LateAnswers({ screen, catalogue, onChanged }: Props) {
  const session = useSession();
  const [id, setId] = useState<string>(() => crypto.randomUUID());
  const [reason, setReason] = useState("");
  const amend = useMutation({
    mutationFn: () =>
      amendScreen(screen.record.id, { id, reason, late: screen.late.map((late) => late.id) }),
    onSuccess: () => {
      setId(crypto.randomUUID());
      setReason("");
      onChanged();
    },
  });
  if (screen.late.length === 0) return null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    amend.mutate();
  };
  return (
    <section aria-label="Arrived after signing">
      <h2 className="panel-title">Arrived after signing</h2>
      {screen.late.map((late) => (
        <p key={late.id} className="mb-1">
          {late.side ?? ""} {fieldName(catalogue, late.test, late.field)}: {sayValue(late.value)}
        </p>
      ))}
      {isLicensed(session) ? (
        <form onSubmit={submit}>
          <TextField
            label="Why the signed screen is amended"
            value={reason}
            onChange={setReason}
            fault={faultAt(amend.error, "reason")}
            required
          />
          <ProblemNote error={amend.error} known={["reason"]} />
          <Button type="submit" disabled={amend.isPending}>
            Amend with these
          </Button>
        </form>
      ) : (
        <p className="muted">A practitioner decides whether to amend.</p>
      )}
    </section>
  );
}

function fieldName(catalogue: Catalogue, test: string, field: string): string {
  const found = catalogue.tests.find((candidate) => candidate.code === test);
  const code = field.replace("values.", "");
  return found?.measures.find((measure) => measure.code === code)?.label ?? readable(code);
}

function sayValue(value: unknown): string {
  if (value === null || value === undefined) return "cleared";
  return typeof value === "object" && !Array.isArray(value) ? JSON.stringify(value) : textOf(value);
}
