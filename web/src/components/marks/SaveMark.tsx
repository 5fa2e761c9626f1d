import { allSaved, savingWords, skewWords, type Unsaved } from "../../state/device/saving";
import { useServices } from "../base/session";
import { useStore } from "../base/useStore";

/** What this device holds of a screen and the server does not have yet. Follows every tab. */
export function useUnsaved(screen: string, faults: readonly string[] = []): Unsaved {
  const { keep, outbox, sender, drafts } = useServices();
  const sending = useStore(sender.state);
  const full = useStore(keep.full);
  useStore(keep.version);
  const kept = drafts(screen).all();
  const refused = [...kept].filter(([, draft]) => draft.problem !== null).map(([key]) => key);
  return {
    waiting: outbox.count(screen),
    drafts: kept,
    sending,
    full,
    faulty: [...faults, ...refused][0] ?? null,
  };
}

/** Saved, waiting or failed, quietly. */
export function SaveMark({ unsaved }: { unsaved: Unsaved }) {
  const trouble = unsaved.full || unsaved.faulty !== null;
  const skew = useStore(useServices().sender.skew);
  return (
    <span role="status" className={trouble ? "fault" : "muted"} data-saved={allSaved(unsaved)}>
      {savingWords(unsaved)}
      {skew === null ? null : `; ${skewWords(skew)}`}
    </span>
  );
}
