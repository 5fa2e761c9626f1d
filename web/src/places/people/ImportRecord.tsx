import { useMutation } from "@tanstack/react-query";
import { type ChangeEvent, useRef } from "react";
import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";
import { useNavigate } from "react-router";
import { importRecord } from "../../api/screens";
import { ProblemNote } from "../../components/ProblemNote";
import { isLicensed, useSession } from "../../components/session";

/** A screen from a file. What stands already is left alone; what differs is refused with its places. */
export function ImportRecord({ onImported }: { onImported: () => void }) {
  const session = useSession();
  const navigate = useNavigate();
  const file = useRef<HTMLInputElement>(null);
  const take = useMutation({
    mutationFn: async (chosen: File) => importRecord(await chosen.text()),
    onSuccess: (found) => {
      onImported();
      if (found.new) void navigate(`/screens/${found.id}/reading`);
    },
  });
  if (!isLicensed(session)) return null;
  const choose = (event: ChangeEvent<HTMLInputElement>) => {
    const [chosen] = event.target.files ?? [];
    event.target.value = "";
    if (chosen) take.mutate(chosen);
  };
  const known = take.data && !take.data.new ? take.data.id : null;
  return (
    <>
      <input
        ref={file}
        type="file"
        accept="application/json,.json"
        aria-label="Screen file"
        hidden
        onChange={choose}
      />
      <Button variant="quiet" disabled={take.isPending} onClick={() => file.current?.click()}>
        Import a screen
      </Button>
      <Modal
        show={take.isError || known !== null}
        centered
        onHide={() => take.reset()}
        aria-labelledby="import-title"
      >
        <Modal.Body>
          <h2 id="import-title" className="fs-4">
            {take.isError ? "This file was not taken" : "This screen is here already"}
          </h2>
          <ProblemNote error={take.error} />
          {known ? <p>It is the same to the last value, so nothing was changed.</p> : null}
          <div className="d-flex gap-2 mt-3">
            {known ? (
              <Button onClick={() => navigate(`/screens/${known}/reading`)}>Open it</Button>
            ) : null}
            <Button variant="quiet" onClick={() => take.reset()}>
              Close
            </Button>
          </div>
        </Modal.Body>
      </Modal>
    </>
  );
}
