import { useEffect, useRef, useState } from "react";
import { preview, readChanges, type Screen } from "../../api/screens";
import { useServices } from "../../components/session";
import { Bench } from "../../state/bench";

const FOLLOW_EVERY_MS = 3000;

/** The bench of one screen, for as long as the place is open; it follows what others write. */
export function useBench(id: string, screen: Screen | undefined): Bench | null {
  const services = useServices();
  const [bench, setBench] = useState<Bench | null>(null);
  const opened = useRef(screen);
  opened.current = screen;
  const ready = screen !== undefined;

  useEffect(() => {
    if (!ready || !opened.current) return;
    const made = new Bench(
      id,
      opened.current,
      services.drafts(id),
      services.outbox,
      services.sender,
      (answers, signal) => preview(id, answers, signal),
    );
    setBench(made);
    const follow = async () => {
      try {
        made.apply(await readChanges(id, made.state.get().revision));
      } catch {
        // Away: asked again at the next turn.
      }
    };
    const timer = setInterval(follow, FOLLOW_EVERY_MS);
    return () => {
      clearInterval(timer);
      made.close();
      setBench(null);
    };
  }, [id, ready, services]);

  return bench;
}
