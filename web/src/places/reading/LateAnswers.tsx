import Button from "react-bootstrap/Button";
import type { Catalogue } from "../../api/catalogue";
import { amendScreen, type Screen } from "../../api/screens";
import { isLicensed, useSession } from "../../components/base/session";
import { FormField, useServerForm } from "../../components/controls/form";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { answerWords } from "../../state/screen/answer_words";

interface Props {
  screen: Screen;
  catalogue: Catalogue;
  onChanged: () => void;
}

/** What arrived after signing waits here until somebody amends with a reason. */
export function LateAnswers({ screen, catalogue, onChanged }: Props) {
  const session = useSession();
  if (screen.late.length === 0) return null;
  return (
    <section aria-label="Arrived after signing">
      <h2 className="panel-title">Arrived after signing</h2>
      {screen.late.map((late) => (
        <p key={late.id} className="mb-1">
          {[late.side, answerWords(catalogue, late)].filter(Boolean).join(" ")}
        </p>
      ))}
      {isLicensed(session) ? (
        <Amend key={screen.signatures.length} screen={screen} onChanged={onChanged} />
      ) : (
        <p className="muted">A practitioner decides whether to amend.</p>
      )}
    </section>
  );
}

/** With a reason and the password, on the signature that is shown. */
function Amend({ screen, onChanged }: Pick<Props, "screen" | "onChanged">) {
  const stands_on = screen.signatures.at(-1)?.id ?? "";
  const { form, fields, submit, busy, error } = useServerForm({
    // One id for one amendment, so that sending it twice makes one.
    defaults: { id: crypto.randomUUID() as string, reason: "", password: "" },
    send: (values) =>
      amendScreen(screen.record.id, {
        ...values,
        stands_on,
        late: screen.late.map((late) => late.id),
        answers: [],
      }),
    onDone: onChanged,
    onRefused: (problem) => {
      if (problem.code === "newer-signature") onChanged();
    },
  });
  return (
    <form onSubmit={submit}>
      <FormField form={form} name="reason" label="Why the signed screen is amended" required />
      <FormField
        form={form}
        name="password"
        label="Your password"
        type="password"
        autoComplete="current-password"
        required
      />
      <ProblemNote error={error} known={fields} />
      <Button type="submit" disabled={busy}>
        Amend with these
      </Button>
    </form>
  );
}
