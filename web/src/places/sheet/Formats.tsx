import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { exportFhir, exportScreenValues, type Fhir } from "../../api/exports";
import type { Screen } from "../../api/screens";
import { saveFile } from "../../components/base/saveFile";
import { Download } from "../../components/controls/Download";
import { Named } from "../../components/marks/Named";
import { ProblemNote } from "../../components/marks/ProblemNote";
import styles from "./sheet.module.css";

interface Props {
  opened: Screen;
  onTaken: () => void;
}

/** The screen in open formats, for programs instead of people. */
export function Formats({ opened, onTaken }: Props) {
  const { id, date } = opened.record;
  const [named, setNamed] = useState(false);
  const fhir = useMutation({
    mutationFn: (version: Fhir) => exportFhir(id, version, named),
    onSuccess: (file, version) => {
      saveFile(file, `north-stride-${date}-fhir-${version}.json`);
      onTaken();
    },
  });
  const values = useMutation({
    mutationFn: () => exportScreenValues(id, named),
    onSuccess: (file) => {
      saveFile(file, `north-stride-${date}-values.csv`);
      onTaken();
    },
  });
  return (
    <>
      <h2>For programs</h2>
      <Named named={named} onNamed={setNamed} />
      <div className={styles.forms}>
        <Button variant="quiet" disabled={fhir.isPending} onClick={() => fhir.mutate("R5")}>
          FHIR R5
        </Button>
        <Button variant="quiet" disabled={fhir.isPending} onClick={() => fhir.mutate("R4B")}>
          FHIR R4B
        </Button>
        <Button variant="quiet" disabled={values.isPending} onClick={() => values.mutate()}>
          CSV
        </Button>
      </div>
      <Download screen={opened} onTaken={onTaken} />
      <ProblemNote error={fhir.error ?? values.error} />
    </>
  );
}
