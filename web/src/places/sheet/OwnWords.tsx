import { useMutation } from "@tanstack/react-query";
import { useEffect, useId, useMemo, useState } from "react";
import { Problem } from "../../api/problem";
import { useServices, useSession } from "../../components/session";
import { momentWords } from "../../state/audit";
import { SheetWords } from "../../state/sheet_words";
import { fieldName } from "./names";
import { type Kind, type Sheets, type Words, wordSheet } from "./queries";
import styles from "./sheet.module.css";
import { Templates } from "./Templates";

interface Props {
  screen: string;
  kind: Kind;
  sheets: Sheets;
  licensed: boolean;
  onKept: () => void;
}

/** The lines a practitioner may say in their own words. What was found is no field. */
export function OwnWords({ screen, kind, sheets, licensed, onKept }: Props) {
  const fields = sheets.words.filter((each) => each.sheet === kind);
  return (
    <section className={styles.words} aria-label="Your words">
      {kind === "letter" && licensed ? (
        <Templates screen={screen} lines={sheets.letter} onFilled={onKept} />
      ) : null}
      {fields.map((field) => (
        <OwnField key={field.field} {...{ screen, field, licensed, onKept }} />
      ))}
      <p className="muted">
        {kind === "letter" ? "Why, Found and Not done come" : "All else comes"} from the reading and
        cannot be changed here.
      </p>
    </section>
  );
}

interface FieldProps {
  screen: string;
  field: Words;
  licensed: boolean;
  onKept: () => void;
}

function OwnField({ screen, field, licensed, onKept }: FieldProps) {
  const { sheet, field: name, most } = field;
  const id = useId();
  const { typed, type, send, takeBack, busy } = useWords(screen, field, onKept);
  const zone = useSession().time_zone;
  const text = typed?.value ?? field.value;
  return (
    <div className={styles.field}>
      <label htmlFor={id}>{fieldName(name)}</label>
      <textarea
        id={id}
        value={text}
        maxLength={most}
        rows={name === "to" ? 1 : 3}
        readOnly={!licensed}
        aria-invalid={typed?.problem ? true : undefined}
        aria-describedby={`${id}-said`}
        onChange={(event) => type(event.target.value)}
        onBlur={send}
      />
      <span id={`${id}-said`} className="small">
        {typed?.problem ? <span className="fault">{typed.problem}</span> : null}
        {typed && !typed.problem ? (
          <span role="status">{busy ? "kept here, being sent" : "kept here, not sent yet"}</span>
        ) : null}
        {!typed && field.by && field.at ? (
          <>
            <strong>{field.by}</strong> {momentWords(field.at, zone)}{" "}
            {licensed ? (
              <button type="button" className="text-button" onClick={takeBack}>
                take back
                <span className="only-read-aloud">
                  {" "}
                  {fieldName(name)}, {sheet}
                </span>
              </button>
            ) : null}
          </>
        ) : null}
      </span>
    </div>
  );
}

/** Typed words are on the device at once, and with the server when the hand leaves the field. */
function useWords(screen: string, field: Words, onKept: () => void) {
  const { sheet, field: name } = field;
  const { keep, owner } = useServices();
  const words = useMemo(() => new SheetWords(keep, owner, screen), [keep, owner, screen]);
  const [typed, setTyped] = useState(() => words.at(sheet, name));
  const call = useMutation({
    mutationFn: (body: { id: string; value: string | null }) =>
      wordSheet(screen, { ...body, sheet, field: name }),
    retry: (_count, error) => error instanceof Problem && error.passing,
    retryDelay: 2000,
    onSuccess: (_done, { id }) => {
      words.settle(sheet, name, id);
      setTyped(words.at(sheet, name));
      onKept();
    },
    onError: (error, { id }) => {
      const standing = words.at(sheet, name);
      if (standing?.id !== id || !(error instanceof Problem)) return;
      words.refuse(sheet, name, standing, error.faults[0]?.problem ?? error.message);
      setTyped(words.at(sheet, name));
    },
  });
  const { mutate, isPending: busy } = call;
  const send = () => {
    const standing = words.at(sheet, name);
    if (standing && !standing.problem && !busy) mutate({ id: standing.id, value: standing.value });
  };
  // What an earlier visit could not send goes now.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the field is first here
  useEffect(send, []);
  return {
    typed,
    busy,
    send,
    type: (value: string) => setTyped(words.type(sheet, name, value)),
    takeBack: () => mutate({ id: crypto.randomUUID(), value: null }),
  };
}
