// What the bench of one screen knows, and what follows from the outbox and the drafts.
import type { Problem } from "../../api/problem";
import type { Clash, Reading } from "../../api/screens";
import type { Draft } from "../device/drafts";
import type { Outbox } from "../device/outbox";
import { createStore } from "../device/store";
import {
  type Fields,
  isValueField,
  type Json,
  type Place,
  placeKey,
  placeOf,
  placeOfAnswer,
} from "../domain/fields";
import { parseTrials } from "../domain/parse";

export interface BenchState {
  fields: Fields;
  revision: number;
  signed: boolean;
  waiting: ReadonlyMap<string, Json>;
  drafts: ReadonlyMap<string, Draft>;
  faults: ReadonlyMap<string, string>;
  reading: Reading | null;
  /** False while the reading is older than what is typed. */
  readingCurrent: boolean;
  /** Why what stands cannot be read, where it cannot: no reading speaks of it then. */
  unreadable: Problem | null;
  late: number;
  /** Two answers to one question, until somebody decides. */
  clashes: readonly Clash[];
  canUndo: boolean;
  /** How often this hand has answered, here and now. */
  answered: number;
}

export interface Change extends Place {
  value: Json;
}

export const emptyBench = () =>
  createStore<BenchState>(() => ({
    fields: new Map(),
    revision: 0,
    signed: false,
    waiting: new Map(),
    drafts: new Map(),
    faults: new Map(),
    reading: null,
    readingCurrent: false,
    unreadable: null,
    late: 0,
    clashes: [],
    canUndo: false,
    answered: 0,
  }));

export const sameJson = (a: Json, b: Json) =>
  JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/** What waits to be sent, by place; the last of each. */
export const waitingIn = (outbox: Outbox, screen: string): Map<string, Json> =>
  new Map(
    outbox
      .list(screen)
      .map(({ answer }) => [placeKey(placeOfAnswer(answer)), answer.value ?? null]),
  );

/** What no longer waits here, because another tab of this device sent it; null where all still waits. */
export function settledElsewhere(
  state: BenchState,
  waiting: ReadonlyMap<string, Json>,
  kept: ReadonlyMap<string, Draft>,
): Pick<BenchState, "fields" | "drafts" | "waiting"> | null {
  const gone = [...state.waiting].filter(([key]) => !waiting.has(key));
  if (gone.length === 0) return null;
  const refused = [...kept].filter(([, draft]) => draft.problem !== null);
  const drafts = new Map([...state.drafts, ...refused]);
  const fields = new Map(state.fields);
  for (const [key, value] of gone) {
    if (drafts.has(key)) continue;
    if (value === null) fields.delete(key);
    else fields.set(key, { value, by: null, at: null });
  }
  return { fields, drafts, waiting };
}

export interface Drafted {
  key: string;
  change: Change;
}

/** The drafts that can be read as values already. */
export function readableDrafts(drafts: ReadonlyMap<string, Draft>): Drafted[] {
  const found: Drafted[] = [];
  for (const [key, draft] of drafts) {
    const parsed = parseTrials(draft.text, draft.dial, draft.unit);
    const place = placeOf(key);
    if (parsed.kind === "fault" || !isValueField(place.field)) continue;
    found.push({
      key,
      change: { ...place, value: parsed.kind === "empty" ? null : parsed.value },
    });
  }
  return found;
}
