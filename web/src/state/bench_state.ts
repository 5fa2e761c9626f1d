// What the bench of one screen knows, and what follows from the outbox and the drafts.
import type { Reading } from "../api/screens";
import type { Draft } from "./drafts";
import {
  type Fields,
  isValueField,
  type Json,
  type Place,
  placeKey,
  placeOf,
  placeOfAnswer,
} from "./fields";
import type { Outbox } from "./outbox";
import { parseTrials } from "./parse";
import { createStore } from "./store";

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
  late: number;
  canUndo: boolean;
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
    late: 0,
    canUndo: false,
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
