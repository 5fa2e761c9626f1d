import { useMutation } from "@tanstack/react-query";
import { type ChangeEvent, useRef } from "react";
import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";
import { readColumns } from "../../api/values";
import { part } from "../../components/base/part";
import { isLicensed, useSession } from "../../components/base/session";
import { ProblemNote } from "../../components/marks/ProblemNote";

const { Place: ImportValues } = part(
  () => import("./ImportValues"),
  () => null,
);

/** A table from a file: its columns are shown first, and nothing is taken before it was tried. */
export function ImportValuesButton({ onTaken }: { onTaken: () => void }) {
  const session = useSession();
  const file = useRef<HTMLInputElement>(null);
  const look = useMutation({
    mutationFn: async (chosen: File) => {
      const text = await chosen.text();
      return { text, columns: await readColumns(text) };
    },
  });
  if (!isLicensed(session)) return null;
  const choose = (event: ChangeEvent<HTMLInputElement>) => {
    const [chosen] = event.target.files ?? [];
    event.target.value = "";
    if (chosen) look.mutate(chosen);
  };
  return (
    <>
      <input
        ref={file}
        type="file"
        accept="text/csv,.csv,.tsv,.txt"
        aria-label="Table of values"
        hidden
        onChange={choose}
      />
      <Button variant="quiet" disabled={look.isPending} onClick={() => file.current?.click()}>
        Import values
      </Button>
      {look.data ? (
        <ImportValues {...look.data} onTaken={onTaken} onClose={() => look.reset()} />
      ) : null}
      <Modal show={look.isError} centered onHide={() => look.reset()} aria-labelledby="no-table">
        <Modal.Body>
          <h2 id="no-table" className="fs-4">
            This file was not read
          </h2>
          <ProblemNote error={look.error} />
          <Button variant="quiet" onClick={() => look.reset()}>
            Close
          </Button>
        </Modal.Body>
      </Modal>
    </>
  );
}
