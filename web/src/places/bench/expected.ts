// "Rest as expected": what would be written for everything of this position that nobody answered yet.
// Each value is named before it is written, and says of itself that it was written this way.
import type { Measure, Test } from "../../api/catalogue";
import type { Schema, Side } from "../../api/client";
import {
  type EntryPlace,
  entryLane,
  type Json,
  lanesOf,
  type Place,
  placeKey,
  valueField,
} from "../../state/domain/fields";
import { kindOf, type Option, optionsOf } from "../../state/domain/kinds";
import { rowsOf, stepsFor } from "../../state/domain/questions";

export interface Expected {
  test: Test;
  place: Place;
  label: string;
  said: string;
  value: Json;
  /** What else has to be written so that the value says it. */
  beside: { field: string; value: Json }[];
}

export interface Standing {
  value: (place: Place) => Json;
  /** Whether a gate holds the test on that side. */
  held: (test: string, side: Side) => boolean;
}

type Schools = Partial<Schema["Schools"]>;

/**
 * The current test first, then the others of its position, in their order. Never a number: what was not
 * measured has none. Never what a danger hangs on, unless its own stop is open. Tests with a key are left
 * out: nobody said which bone or toe.
 */
export function expectedHere(
  tests: readonly Test[],
  current: Test,
  schools: Schools,
  standing: Standing,
): Expected[] {
  const group = tests.filter(
    (test) =>
      test.code === current.code || (test.position === current.position && test.own_stop === false),
  );
  const ordered = [current, ...group.filter((test) => test.code !== current.code)];
  return ordered
    .filter((test) => !test.key)
    .flatMap((test) => [...rowsExpected(test, schools), ...painExpected(test, schools)])
    .filter((item) => isOpen(item, standing));
}

function rowsExpected(test: Test, schools: Schools): Expected[] {
  const rows = stepsFor(test, schools).flatMap((step) => rowsOf(test, step, new Map()));
  return rows.flatMap((measure) => {
    const option = expectedOption(measure);
    if (!option) return [];
    return lanesOf(test, measure.code).map((side) => ({
      test,
      place: { test: test.code, side, key: "", field: valueField(measure.code) },
      label: measure.label,
      said: option.label,
      value: option.value,
      beside: besideOf(test, measure),
    }));
  });
}

/** A test that is its pain alone is answered by it. */
function painExpected(test: Test, schools: Schools): Expected[] {
  if (!isPainAlone(test, schools)) return [];
  const sides: readonly Side[] = ["left", "right"];
  const lanes = [...new Set(sides.map((side) => entryLane(test, side)))];
  return lanes.map((side) => ({
    test,
    place: { test: test.code, side, key: "", field: "pain" },
    label: "Pain",
    said: "No pain",
    value: { present: false },
    beside: [],
  }));
}

export const isPainAlone = (test: Test, schools: Schools): boolean =>
  stepsFor(test, schools).every((step) => rowsOf(test, step, new Map()).length === 0);

function expectedOption(measure: Measure): Option | null {
  const normal = measure.normal ?? null;
  if (normal === null || kindOf(measure).asked === "number") return null;
  const wanted = Array.isArray(normal) && normal.length > 0 ? normal[0] : normal;
  const offered = optionsOf(measure);
  if (Array.isArray(wanted)) {
    return offered.find((option) => Array.isArray(option.value)) ?? null;
  }
  const found = offered.find((option) => option.value === wanted) ?? null;
  return found && kindOf(measure).asked === "many" ? { ...found, value: [found.value] } : found;
}

/** "None tender" is said of points that were pressed: all of them. */
function besideOf(test: Test, measure: Measure): Expected["beside"] {
  const pressed = test.measures.find((other) => other.code === measure.map?.pressed);
  if (!pressed) return [];
  const all = pressed.choices.map((choice) => choice.code);
  return [{ field: valueField(pressed.code), value: all }];
}

function isOpen({ test, place, beside }: Expected, standing: Standing): boolean {
  const sides: readonly Side[] = place.side === null ? ["left", "right"] : [place.side];
  const lane = test.sides === "both" ? null : place.side;
  const declined = standing.value({ ...place, side: lane, field: "declined" }) !== null;
  const said = [place.field, ...beside.map(({ field }) => field)];
  // What stands for both at once may have been said of a side.
  const lanes = place.side === null ? [null, ...sides] : [place.side];
  const answered = lanes.some((side) =>
    said.some((field) => standing.value({ ...place, side, field }) !== null),
  );
  return !declined && !answered && !sides.some((side) => standing.held(test.code, side));
}

/** The changes that write them, each entry marked as written this way. */
export function changesFor(items: readonly Expected[]): (Place & { value: Json })[] {
  const entries = new Map<string, EntryPlace>();
  for (const { test, place } of items) {
    const side = test.sides === "both" ? null : place.side;
    const entry = { test: test.code, side, key: place.key };
    entries.set(placeKey({ ...entry, field: "" }), entry);
  }
  return [
    ...items.flatMap(({ place, value, beside }) => [
      { ...place, value },
      ...beside.map((also) => ({ ...place, ...also })),
    ]),
    ...[...entries.values()].map((entry) => ({ ...entry, field: "by_exception", value: true })),
  ];
}
