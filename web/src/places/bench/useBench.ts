import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Catalogue } from "../../api/catalogue";
import { type Changes, type Screen, screenQuery } from "../../api/screens";
import { useServices } from "../../components/session";
import { Bench } from "../../state/bench";
import { type Json, keyMeasures, type Place, valueField } from "../../state/fields";
import { outOfRange } from "../../state/kinds";
import { preview, readChanges } from "./queries";

const FOLLOW_EVERY_MS = 3000;

/** The bench of one screen, for as long as the place is open; it follows what others do to it. */
export function useBench(
  id: string,
  screen: Screen | undefined,
  catalogue: Catalogue | undefined,
): Bench | null {
  const services = useServices();
  const queries = useQueryClient();
  const [bench, setBench] = useState<Bench | null>(null);
  const opened = useRef(screen);
  opened.current = screen;
  const known = useRef(catalogue);
  known.current = catalogue;
  const ready = screen !== undefined && catalogue !== undefined;

  useEffect(() => {
    if (!ready || !opened.current || !known.current) return;
    const made = new Bench(
      id,
      opened.current,
      services.drafts(id),
      services.outbox,
      services.sender,
      (answers, signal) => preview(id, answers, signal),
      keyMeasures(known.current),
      (place, value) => quickFault(known.current, place, value),
    );
    setBench(made);
    const follow = async () => {
      try {
        const changes = await readChanges(id, made.state.getState().revision);
        made.apply(changes);
        queries.setQueryData(screenQuery(id).queryKey, (old) => old && withHead(old, changes));
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
  }, [id, ready, services, queries]);

  return bench;
}

/** Story, plan, overrides and schools as they are now; the entries are the bench's own. */
function withHead(screen: Screen, { head, state }: Changes): Screen {
  if (!head) return screen;
  const { record, schools, first_side } = head;
  const entries = screen.record.entries;
  return { ...screen, state, schools, first_side, record: { ...record, entries } };
}

function quickFault(catalogue: Catalogue | undefined, place: Place, value: Json): string | null {
  const test = catalogue?.tests.find((candidate) => candidate.code === place.test);
  const measure = test?.measures.find((candidate) => valueField(candidate.code) === place.field);
  return measure ? outOfRange(measure, value) : null;
}
