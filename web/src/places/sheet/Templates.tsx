import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { FormField, useServerForm } from "../../components/form";
import { ProblemNote } from "../../components/ProblemNote";
import {
  archiveTemplate,
  fillTemplate,
  keepTemplate,
  type Template,
  templatesQuery,
} from "./queries";
import styles from "./sheet.module.css";

interface Props {
  screen: string;
  /** As the letter stands: what a new template begins from. */
  lines: Pick<Template, "to" | "greeting" | "last">;
  onFilled: () => void;
}

/** Addressees and free lines the clinic keeps: filled in by one tap, with this screen's name and day. */
export function Templates({ screen, lines, onFilled }: Props) {
  const found = useQuery(templatesQuery);
  const [keeping, setKeeping] = useState(false);
  const fill = useMutation({
    mutationFn: (template: string) => fillTemplate(screen, crypto.randomUUID(), template),
    onSuccess: onFilled,
  });
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
            onClick={() => fill.mutate(template.id)}
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
