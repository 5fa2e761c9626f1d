import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import type { Screen } from "../../api/screens";
import { FormField, useServerForm } from "../../components/controls/form";
import { PasswordDialog } from "../../components/controls/PasswordDialog";
import { ProblemNote } from "../../components/marks/ProblemNote";
import {
  archiveTemplate,
  fillTemplate,
  keepTemplate,
  type Template,
  templatesQuery,
} from "./queries";
import styles from "./sheet.module.css";

interface Props {
  opened: Screen;
  /** As the letter stands: what a new template begins from. */
  lines: Pick<Template, "to" | "greeting" | "last">;
  onFilled: () => void;
}

/** Addressees and free lines the clinic keeps: filled in by one tap, with this screen's name and day. */
export function Templates({ opened, lines, onFilled }: Props) {
  const screen = opened.record.id;
  const signed = opened.state === "signed";
  const found = useQuery(templatesQuery);
  const [keeping, setKeeping] = useState(false);
  const [chosen, setChosen] = useState<{ id: string; template: Template } | null>(null);
  const fill = useMutation({
    mutationFn: (template: string) => fillTemplate(screen, { id: crypto.randomUUID(), template }),
    onSuccess: onFilled,
  });
  const choose = (template: Template) => {
    if (signed) setChosen({ id: crypto.randomUUID(), template });
    else fill.mutate(template.id);
  };
  const archive = useMutation({
    mutationFn: archiveTemplate,
    onSuccess: () => found.refetch(),
  });
  const fields = found.data?.fields.map(({ field, says }) => `{${field}}: ${says}`).join(", ");
  return (
    <section className={styles.templates} aria-label="Templates">
      {found.data?.templates.map((template) => (
        <span key={template.id}>
          <button
            type="button"
            className="plate"
            disabled={fill.isPending}
            onClick={() => choose(template)}
          >
            {template.name}
          </button>{" "}
          <button type="button" className="text-button" onClick={() => archive.mutate(template.id)}>
            remove<span className="only-read-aloud"> template {template.name}</span>
          </button>
        </span>
      ))}
      {keeping ? (
        <NewTemplate
          lines={lines}
          fields={fields ?? ""}
          onDone={() => {
            setKeeping(false);
            void found.refetch();
          }}
        />
      ) : (
        <button type="button" className="text-button" onClick={() => setKeeping(true)}>
          Keep a template…
        </button>
      )}
      {chosen ? (
        <PasswordDialog
          title={`${chosen.template.name}: a new version of the paper`}
          does="Put on the paper"
          send={({ password }) =>
            fillTemplate(screen, { id: chosen.id, template: chosen.template.id, password })
          }
          onDone={() => {
            setChosen(null);
            onFilled();
          }}
          onClose={() => setChosen(null)}
        >
          <p>
            What was signed stays as it was; the paper says that these words are later, and whose.
          </p>
        </PasswordDialog>
      ) : null}
      <ProblemNote error={fill.error ?? archive.error} />
    </section>
  );
}

interface NewProps extends Pick<Props, "lines"> {
  fields: string;
  onDone: () => void;
}

function NewTemplate({ lines, fields, onDone }: NewProps) {
  const {
    form,
    fields: known,
    submit,
    busy,
    error,
  } = useServerForm({
    defaults: {
      id: crypto.randomUUID() as string,
      name: "",
      to: lines.to,
      greeting: lines.greeting,
      last: lines.last,
    },
    send: keepTemplate,
    onDone,
  });
  return (
    <form onSubmit={submit}>
      <FormField form={form} name="name" label="Name of the template" autoFocus required />
      <FormField form={form} name="to" label="Template: to" />
      <FormField form={form} name="greeting" label="Template: greeting" />
      <FormField form={form} name="last" label="Template: last line" hint={`Fields: ${fields}`} />
      <ProblemNote error={error} known={known} />
      <Button type="submit" disabled={busy}>
        Keep
      </Button>{" "}
      <Button variant="quiet" onClick={onDone}>
        Cancel
      </Button>
    </form>
  );
}
