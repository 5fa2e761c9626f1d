import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";
import ProgressBar from "react-bootstrap/ProgressBar";
import { exportArchive, exportValues, type Table, type Whose } from "../../api/exports";
import { gathered } from "../../state/domain/archive";
import { saveFile } from "../base/saveFile";
import { Named } from "../marks/Named";
import { ProblemNote } from "../marks/ProblemNote";

interface Props {
  whose: Whose;
  /** As a person or a squad is called. */
  called: string;
  onClose: () => void;
}

/** Everything of a person or a squad, in open formats. Each form is in the audit. */
export default function TakeAlong({ whose, called, onClose }: Props) {
  const [named, setNamed] = useState(false);
  const archive = useArchive(whose, named);
  const table = useMutation({
    mutationFn: (form: Table) => exportValues(whose, form, named),
    onSuccess: (file, form) => saveFile(file, `north-stride-values-${form}.csv`),
  });
  const busy = archive.busy || table.isPending;
  return (
    <Modal show centered onHide={onClose} aria-labelledby="along-title">
      <Modal.Body>
        <h2 id="along-title" className="fs-4">
          {called}, taken along
        </h2>
        <Named named={named} onNamed={setNamed} disabled={busy} />
        <div className="d-grid gap-2 mt-3 mb-3">
          <Button disabled={busy} onClick={archive.go}>
            All of it, one archive
          </Button>
          <Button variant="quiet" disabled={busy} onClick={() => table.mutate("long")}>
            Values as a table, a row a value
          </Button>
          {whose.kind === "squad" ? (
            <Button variant="quiet" disabled={busy} onClick={() => table.mutate("wide")}>
              Values as a table, a row a screen
            </Button>
          ) : null}
        </div>
        {archive.busy ? (
          <div className="mb-3">
            <ProgressBar
              now={archive.begun}
              max={Math.max(archive.files, 1)}
              aria-label="Files made so far"
            />
            <p className="muted small mb-1" role="status">
              {archive.begun} of {archive.files || "…"} files
            </p>
            <Button variant="quiet" onClick={archive.stop}>
              Stop
            </Button>
          </div>
        ) : null}
        {archive.done ? <p role="status">The archive is there.</p> : null}
        <ProblemNote error={archive.error ?? table.error} />
        <p className="muted small">
          The archive holds each screen as a record, as it reads, and as FHIR R5, the values as a
          table, and a manifest with a checksum of every file.
        </p>
        <Button variant="quiet" onClick={onClose}>
          Close
        </Button>
      </Modal.Body>
    </Modal>
  );
}

/** An archive on its way: how far it is, and a way to stop it. Closing stops it too. */
function useArchive(whose: Whose, named: boolean) {
  const [at, setAt] = useState({ begun: 0, files: 0 });
  const [stopped, setStopped] = useState(false);
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const call = useMutation({
    mutationFn: async () => {
      running.current = new AbortController();
      const { pieces, files } = await exportArchive(whose, named, running.current.signal);
      setAt({ begun: 0, files });
      return gathered(pieces, (begun) => setAt({ begun, files }));
    },
    onSuccess: (file) => saveFile(file, "north-stride-archive.zip"),
  });
  return {
    ...at,
    busy: call.isPending,
    done: call.isSuccess,
    error: stopped ? null : call.error,
    go: () => {
      setAt({ begun: 0, files: 0 });
      setStopped(false);
      call.mutate();
    },
    stop: () => {
      setStopped(true);
      running.current?.abort();
    },
  };
}
