import { useEffect, useState } from "react";
import { allSaved, savingWords, type Unsaved } from "../state/saving";
import { useServices } from "./session";
import { useStore } from "./useStore";

/** What this device holds of a screen and the server does not have yet. Follows every tab. */
export function useUnsaved(screen: string, faults: readonly string[] = []): Unsaved {
  const { keep, outbox, sender, drafts } = useServices();
  const sending = useStore(sender.state);
  const full = useStore(keep.full);
  useStore(keep.version);
  const [, look] = useState(0);
  useEffect(() => {
    // Another tab wrote.
    const heard = () => look((times) => times + 1);
    window.addEventListener("storage", heard);
    return () => window.removeEventListener("storage", heard);
  }, []);
  const kept = drafts(screen).all();
  const refused = [...kept].filter(([, draft]) => draft.problem !== null).map(([key]) => key);
  return {
    waiting: outbox.list(screen).length,
    drafts: kept,
    sending,
    full,
    faulty: [...faults, ...refused][0] ?? null,
  };
}

/** Saved, waiting or failed, quietly. */
export function SaveMark({ unsaved }: { unsaved: Unsaved }) {
  const trouble = unsaved.full || unsaved.faulty !== null;
  return (
    <span role="status" className={trouble ? "fault" : "muted"} data-saved={allSaved(unsaved)}>
      {savingWords(unsaved)}
    </span>
  );
}
