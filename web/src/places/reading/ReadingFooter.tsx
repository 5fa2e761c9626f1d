import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { exportRecord, type Reading, type Screen } from "../../api/screens";
import { ProblemNote } from "../../components/ProblemNote";
import { isLicensed, useSession } from "../../components/session";
import { SignDialog } from "./SignDialog";

interface Props {
  screen: Screen;
  reading: Reading;
  revision: number;
  waiting: number;
  onChanged: () => void;
}

export function ReadingFooter({ screen, reading, revision, waiting, onChanged }: Props) {
  const session = useSession();
  const [signing, setSigning] = useState(false);
  const download = useMutation({
    mutationFn: () => exportRecord(screen.record.id),
    onSuccess: (file) => saveFile(file as unknown as Blob, fileName(screen)),
  });
  const licensed = isLicensed(session);
  return (
    <footer className="bench-footer reading-footer">
      <span className="flex-fill muted">{says(screen, reading, waiting, licensed)}</span>
      <ProblemNote error={download.error} />
      {licensed ? (
        <Button variant="quiet" disabled={download.isPending} onClick={() => download.mutate()}>
          Download the screen
        </Button>
      ) : null}
      {licensed && screen.state === "open" ? (
        <Button
          disabled={waiting > 0 || reading.coverage.open.length > 0}
          onClick={() => setSigning(true)}
        >
          Sign
        </Button>
      ) : null}
      {signing ? (
        <SignDialog
          screen={screen}
          revision={revision}
          onClose={() => setSigning(false)}
          onSigned={() => {
            setSigning(false);
            onChanged();
          }}
          onStale={onChanged}
        />
      ) : null}
    </footer>
  );
}

function says(screen: Screen, reading: Reading, waiting: number, licensed: boolean): string {
  if (screen.state === "signed") return "Signed and frozen. Later changes are kept as amendments.";
  if (waiting > 0) return `${waiting} answers of this device are not sent yet. Sign when they are.`;
  if (!licensed) return "A practitioner or owner signs.";
  if (reading.coverage.open.length > 0) {
    return "A planned test is neither done nor declined with a reason. Sign when it is.";
  }
  return "Signing freezes the values and this reading. Later changes are kept as amendments.";
}

const fileName = (screen: Screen): string =>
  `north-stride-${screen.athlete.ref}-${screen.record.date}.json`;

function saveFile(file: Blob, name: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(file);
  link.download = name;
  link.click();
  // The browser reads the address after this turn.
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}
