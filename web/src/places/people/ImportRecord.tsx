import { useMutation } from "@tanstack/react-query";
import { type ChangeEvent, useRef } from "react";
import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";
import { useNavigate } from "react-router";
import type { CheckedFile } from "../../api/screens";
import { isLicensed, useSession } from "../../components/base/session";
import { FormField, useServerForm } from "../../components/controls/form";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { stepTo } from "../../state/domain/addresses";
import { dayWords, purposeName } from "../../state/domain/wording";
import styles from "./people.module.css";
import { checkRecord, importRecord } from "./queries";

interface Chosen {
  text: string;
  checked: CheckedFile;
}

/** A screen from a file: whose it is is shown first, and nothing is taken before that is confirmed. */
export function ImportRecord({ onImported }: { onImported: () => void }) {
  const session = useSession();
  const navigate = useNavigate();
  const file = useRef<HTMLInputElement>(null);
  const look = useMutation({
    mutationFn: async (chosen: File): Promise<Chosen> => {
      const text = await chosen.text();
      return { text, checked: await checkRecord(text) };
    },
  });
  if (!isLicensed(session)) return null;
  const choose = (event: ChangeEvent<HTMLInputElement>) => {
    const [chosen] = event.target.files ?? [];
    event.target.value = "";
    if (chosen) look.mutate(chosen);
  };
  const taken = (id: string) => {
    look.reset();
    onImported();
    void navigate(stepTo(id, "reading"));
  };
  const shown = look.isError || look.isSuccess;
  return (
    <>
      <input
        ref={file}
        type="file"
        accept="application/json,application/fhir+json,.json"
        aria-label="Screen file"
        hidden
        onChange={choose}
      />
      <Button variant="quiet" disabled={look.isPending} onClick={() => file.current?.click()}>
        Import a screen
      </Button>
      <Modal show={shown} centered onHide={() => look.reset()} aria-labelledby="import-title">
        <Modal.Body>
          {look.data ? (
            <Found {...look.data} onTaken={taken} onClose={() => look.reset()} />
          ) : (
            <>
              <h2 id="import-title" className="fs-4">
                This file was not taken
              </h2>
              <ProblemNote error={look.error} />
              <Button variant="quiet" onClick={() => look.reset()}>
                Close
              </Button>
            </>
          )}
        </Modal.Body>
      </Modal>
    </>
  );
}

interface FoundProps extends Chosen {
  onTaken: (id: string) => void;
  onClose: () => void;
}

function Found({ text, checked, onTaken, onClose }: FoundProps) {
  const { athlete, stands, id } = checked;
  const { form, fields, submit, busy, error } = useServerForm({
    defaults: { name: "" },
    send: ({ name }) => importRecord(text, athlete ? { athlete: athlete.id } : { name }),
    onDone: (taken) => onTaken(taken.id),
  });
  if (stands) {
    return (
      <>
        <h2 id="import-title" className="fs-4">
          This screen is here already
        </h2>
        <p>It is the same to the last value, so nothing was changed.</p>
        <div className="d-flex gap-2 mt-3">
          <Button onClick={() => onTaken(id)}>Open it</Button>
          <Button variant="quiet" onClick={onClose}>
            Close
          </Button>
        </div>
      </>
    );
  }
  return (
    <form onSubmit={submit}>
      <h2 id="import-title" className="fs-4">
        {athlete ? `A screen of ${athlete.name}` : "A screen of somebody new here"}
      </h2>
      <Facts checked={checked} />
      {athlete ? null : (
        <FormField form={form} name="name" label="Name of the new athlete" autoFocus required />
      )}
      <ProblemNote error={error} known={fields} />
      <div className="d-flex gap-2 mt-3">
        <Button type="submit" disabled={busy}>
          {athlete ? `It is ${athlete.name}: take it` : "Add and take it"}
        </Button>
        <Button variant="quiet" onClick={onClose}>
          Leave it
        </Button>
      </div>
    </form>
  );
}

/** What the file says beside what is known here. */
function Facts({ checked }: { checked: CheckedFile }) {
  const { file, athlete, date, purpose, examiner, entries } = checked;
  const said = (who: CheckedFile["file"]) =>
    [who.ref, who.birth_date ? `born ${dayWords(who.birth_date)}` : null, who.sex, who.sport]
      .filter(Boolean)
      .join(" · ");
  return (
    <dl className={styles["file-facts"]}>
      <dt>In the file</dt>
      <dd>{said(file)}</dd>
      <dt>Here</dt>
      <dd>{athlete ? `${athlete.name} · ${said(athlete)}` : "nobody has this reference"}</dd>
      <dt>Screen</dt>
      <dd>
        {dayWords(date)}, {purposeName(purpose)}, {entries} {entries === 1 ? "entry" : "entries"}
        {examiner ? `, examiner ${examiner} as written in the file` : ""}
      </dd>
    </dl>
  );
}
