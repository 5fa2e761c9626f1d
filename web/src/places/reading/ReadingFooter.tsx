import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import type { Identity, Reading, Screen } from "../../api/screens";
import { ProblemNote } from "../../components/ProblemNote";
import { isLicensed, useSession } from "../../components/session";
import { allSaved, type Unsaved } from "../../state/saving";
import { exportRecord } from "./queries";
import { SignDialog } from "./SignDialog";

interface Props {
  screen: Screen;
  shown: { reading: Reading; identity: Identity | null };
  unsaved: Unsaved;
  /** A signed version that is looked at by itself. */
  version: number | null;
  onChanged: () => void;
}

export function ReadingFooter({ screen, shown, unsaved, version, onChanged }: Props) {
  const session = useSession();
  const [signing, setSigning] = useState(false);
  const download = useMutation({
    mutationFn: () => exportRecord(screen.record.id),
    onSuccess: (file) => saveFile(file as unknown as Blob, fileName(screen)),
  });
  const { reading, identity } = shown;
  const licensed = isLicensed(session);
  const ready = allSaved(unsaved) && reading.coverage.open.length === 0;
  return (
    <footer className="bench-footer reading-footer">
      <span className="flex-fill muted">{says(screen, reading, unsaved, licensed)}</span>
      <ProblemNote error={download.error} />
      {licensed ? (
        <Button variant="quiet" disabled={download.isPending} onClick={() => download.mutate()}>
          Download the screen
        </Button>
      ) : null}
      {licensed && screen.state === "open" && version === null && identity ? (
        <Button disabled={!ready} onClick={() => setSigning(true)}>
          Sign
        </Button>
      ) : null}
      {signing && identity ? (
        <SignDialog
          screen={screen}
          identity={identity}
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

function says(screen: Screen, reading: Reading, unsaved: Unsaved, licensed: boolean): string {
  if (screen.state === "signed") return "Signed and frozen. Later changes are kept as amendments.";
  if (!allSaved(unsaved)) return "Not everything of this device is saved yet. Sign when it is.";
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
