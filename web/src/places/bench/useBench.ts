import { useEffect, useRef, useState } from "react";
import type { Catalogue } from "../../api/catalogue";
import { preview, readChanges, type Screen } from "../../api/screens";
import { useServices } from "../../components/session";
import { Bench } from "../../state/bench";
import { type Json, type Place, valueField } from "../../state/fields";
import { outOfRange } from "../../state/parse";

const FOLLOW_EVERY_MS = 3000;

/** The bench of one screen, for as long as the place is open; it follows what others write. */
export function useBench(
  id: string,
  screen: Screen | undefined,
  catalogue: Catalogue | undefined,
): Bench | null {
  const services = useServices();
  const [bench, setBench] = useState<Bench | null>(null);
  const opened = useRef(screen);
  opened.current = screen;
  const known = useRef(catalogue);
  known.current = catalogue;
  const ready = screen !== undefined && catalogue !== undefined;

  useEffect(() => {
    if (!ready || !opened.current) return;
    const made = new Bench(
      id,
      opened.current,
      services.drafts(id),
      services.outbox,
      services.sender,
      (answers, signal) => preview(id, answers, signal),
      (place, value) => quickFault(known.current, place, value),
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

function quickFault(catalogue: Catalogue | undefined, place: Place, value: Json): string | null {
  const test = catalogue?.tests.find((candidate) => candidate.code === place.test);
  const measure = test?.measures.find((candidate) => valueField(candidate.code) === place.field);
  return measure ? outOfRange(measure, value) : null;
}
