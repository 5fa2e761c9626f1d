// What stands at each place of a screen, as the server has it. A place is test, side, key, field.

import type { Catalogue, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Answer, Changes, Fact, Screen } from "../../api/screens";

export type Lane = Side | null;
export type Json = unknown;

/** Where entries of one test stand apart: on a side, at a bone, toe, space or position. */
export interface EntryPlace {
  test: string;
  side: Lane;
  key: string;
}

export interface Place extends EntryPlace {
  field: string;
}

export interface Standing {
  value: Json;
  by: string | null;
  at: string | null;
}

export type Fields = ReadonlyMap<string, Standing>;
/** By test, the measure whose value is the key of its entries. */
export type KeyMeasures = ReadonlyMap<string, string>;

export const keyMeasures = (catalogue: Catalogue): KeyMeasures =>
  new Map(catalogue.tests.flatMap((test) => (test.key ? [[test.code, test.key]] : [])));

export const placeKey = (place: Place): string =>
  [place.test, place.side ?? "", place.key, place.field].join("|");

export function placeOf(key: string): Place {
  const parts = key.split("|");
  // Kept on a device before places had a key: three parts.
  const [test = "", side = "", own = "", field = ""] =
    parts.length === 3 ? [parts[0], parts[1], "", parts[2]] : parts;
  return { test, side: side === "left" || side === "right" ? side : null, key: own, field };
}

/** What somebody says at a place, with a name of its own and the time of this device. */
export const newAnswer = (place: Place, value: Json, at = new Date().toISOString()): Answer => {
  const { test, side, key, field } = place;
  return { id: crypto.randomUUID(), test, side, key, field, value, at };
};

export const valueField = (measure: string): string => `values.${measure}`;

export const isValueField = (field: string): boolean => field.startsWith("values.");

const ENTRY_FIELDS = ["pain", "seen", "declined", "method", "by_exception", "note"] as const;

/** The open record's entries, field by field. A later entry of a place replaces an earlier one. */
export function fieldsOf(record: Screen["record"], keys: KeyMeasures): Map<string, Standing> {
  const fields = new Map<string, Standing>();
  for (const entry of record.entries) {
    const side = entry.side ?? null;
    const values = entry.values ?? {};
    const key = keyText(values[keys.get(entry.test) ?? ""]);
    const who = { by: entry.by ?? null, at: entry.at ?? null };
    const put = (lane: Lane, field: string, value: Json) =>
      fields.set(placeKey({ test: entry.test, side: lane, key, field }), { value, ...who });
    for (const [measure, value] of Object.entries(values)) {
      if (side === null && isPerSide(value)) {
        for (const [own, part] of Object.entries(value))
          put(own as Side, valueField(measure), part);
      } else {
        put(side, valueField(measure), value);
      }
    }
    for (const name of ENTRY_FIELDS) {
      const value = entry[name];
      if (value !== null && value !== undefined) put(side, name, value);
    }
  }
  return fields;
}

/** A key as it stands in a place: codes as they are, numbers in digits. */
const keyText = (value: Json): string =>
  typeof value === "string" || typeof value === "number" ? String(value) : "";

function isPerSide(value: Json): value is Record<string, Json> {
  if (typeof value !== "object" || value === null || Array.isArray(value)) return false;
  const keys = Object.keys(value);
  return keys.length > 0 && keys.every((key) => key === "left" || key === "right");
}

/** What was told and planned stands at places of its own. */
export function withFacts(fields: Fields, facts: readonly Fact[]): Map<string, Standing> {
  const next = new Map(fields);
  for (const { test, side, key, field, value, by, at } of facts) {
    next.set(placeKey({ test, side: side ?? null, key, field }), { value, by, at });
  }
  return next;
}

/** The same fields with what others, or this device, wrote since. */
export function withChanges(fields: Fields, answers: Changes["answers"]): Map<string, Standing> {
  const next = new Map(fields);
  for (const answer of answers) {
    const { test, field } = answer;
    const key = placeKey({ test, side: answer.side ?? null, key: answer.key, field });
    if (answer.value === null) next.delete(key);
    else next.set(key, { value: answer.value, by: answer.by, at: answer.at });
  }
  return next;
}

/** The lanes a measure is asked in: both sides, or one lane for the whole. */
export const lanesOf = (test: Test, measure: string): Lane[] => {
  const found = test.measures.find((candidate) => candidate.code === measure);
  return test.sides === "both" && found?.per_side === false ? [null] : ["left", "right"];
};

/** Where what belongs to the entry as a whole stands: its side, or no side for a test of both. */
export const entryLane = (test: Test, side: Side): Lane => (test.sides === "both" ? null : side);

export const placeOfAnswer = (answer: Answer): Place => ({
  test: answer.test,
  side: answer.side ?? null,
  key: answer.key ?? "",
  field: answer.field,
});
