import { useMutation } from "@tanstack/react-query";
import { type ReactNode, useEffect, useId, useMemo, useState } from "react";
import { Problem } from "../../api/problem";
import type { Screen } from "../../api/screens";
import { useServices, useSession } from "../../components/base/session";
import { momentWords } from "../../state/domain/audit";
import { fieldName } from "./names";
import { SheetWords } from "./own_words";
import { PutOnPaper } from "./PutOnPaper";
import { type Kind, type Sheets, type Words, wordSheet } from "./queries";
import styles from "./sheet.module.css";
import { Templates } from "./Templates";

interface Props {
  opened: Screen;
  kind: Kind;
  sheets: Sheets;
  licensed: boolean;
  onKept: () => void;
}

/** The lines a practitioner may say in their own words. What was found is no field. */
export function OwnWords({ opened, kind, sheets, licensed, onKept }: Props) {
  const fields = sheets.words.filter((each) => each.sheet === kind);
  return (
    <section className={styles.words} aria-label="Your words">
      {kind === "letter" && licensed ? (
        <Templates opened={opened} lines={sheets.letter} onFilled={onKept} />
      ) : null}
      {fields.map((field) => (
        <OwnField key={field.field} {...{ opened, field, licensed, onKept }} />
      ))}
      <p className="muted">
        {kind === "letter" ? "Why, Found and Not done come" : "All else comes"} from the reading and
        cannot be changed here.
      </p>
    </section>
  );
}

interface FieldProps {
  opened: Screen;
  field: Words;
  licensed: boolean;
  onKept: () => void;
}

function OwnField({ opened, field, licensed, onKept }: FieldProps) {
  const { field: name, most } = field;
  const id = useId();
  const { typed, type, send, drop, put, takeBack, busy } = useWords(opened, field, onKept);
  const signed = opened.state === "signed";
  const [putting, setPutting] = useState<{ value: string | null } | null>(null);
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
      {putting ? (
        <PutOnPaper
          screen={opened}
          field={field}
          value={putting.value}
          onClose={() => setPutting(null)}
          onDone={() => {
            setPutting(null);
            put();
          }}
        />
      ) : null}
      <span id={`${id}-said`} className="small">
        {typed?.problem ? <span className="fault">{typed.problem}</span> : null}
        {typed && signed ? (
          <>
            <span role="status">kept here, not on the paper</span>{" "}
            <WordsButton field={field} onClick={() => setPutting({ value: typed.value })}>
              {field.amend ? "amend…" : "put on the paper…"}
            </WordsButton>{" "}
            <WordsButton field={field} onClick={drop}>
              drop
            </WordsButton>
          </>
        ) : null}
        {typed && !typed.problem && !signed ? (
          <span role="status">{busy ? "kept here, being sent" : "kept here, not sent yet"}</span>
        ) : null}
        {typed ? null : (
          <Whose
            field={field}
            {...(licensed
              ? { onTakeBack: signed ? () => setPutting({ value: null }) : takeBack }
              : {})}
          />
        )}
      </span>
    </div>
  );
}

/** Who said it so, and when: before the signature, or later. */
function Whose({ field, onTakeBack }: { field: Words; onTakeBack?: () => void }) {
  const zone = useSession().time_zone;
  if (!field.by || !field.at) return null;
  return (
    <>
      <strong>{field.by}</strong> {momentWords(field.at, zone)}
      {field.later ? ", after it was signed" : ""}{" "}
      {onTakeBack ? (
        <WordsButton field={field} onClick={onTakeBack}>
          take back
        </WordsButton>
      ) : null}
    </>
  );
}

interface WordsButtonProps {
  field: Words;
  onClick: () => void;
  children: ReactNode;
}

const WordsButton = ({ field, onClick, children }: WordsButtonProps) => (
  <button type="button" className="text-button" onClick={onClick}>
    {children}
    <span className="only-read-aloud">
      {" "}
      {fieldName(field.field)}, {field.sheet}
    </span>
  </button>
);

/**
 * Typed words are on the device at once, and with the server when the hand leaves the field. On a signed
 * screen they wait until somebody puts them on its paper.
 */
function useWords(opened: Screen, field: Words, onKept: () => void) {
  const { sheet, field: name } = field;
  const screen = opened.record.id;
  const signed = opened.state === "signed";
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
    const standing = signed ? null : words.at(sheet, name);
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
    drop: () => {
      words.drop(sheet, name);
      setTyped(null);
    },
    put: () => {
      words.drop(sheet, name);
      setTyped(null);
      onKept();
    },
    takeBack: () => mutate({ id: crypto.randomUUID(), value: null }),
  };
}
