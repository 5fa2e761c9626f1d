// The stops of a screen: what is planned, what was recorded without being planned, what was opened.
import type { Catalogue, Measure, Test } from "../../api/catalogue";
import type { Schema, Side } from "../../api/client";
import type { Screen } from "../../api/screens";
import { type Fields, type Json, placeOf, valueField } from "../../state/fields";
import { listed, shareTouched } from "../../state/pressing";
import { rowsOf, stepsFor, twinOf } from "../../state/questions";

export interface Stop {
  test: Test;
}

export interface Position {
  name: string;
  stops: Stop[];
}

const POSITIONS: readonly (readonly [Test["position"], string])[] = [
  ["standing", "Standing"],
  ["sitting", "Sitting"],
  ["supine", "Supine"],
  ["side_lying", "Side-lying"],
  ["prone", "Prone"],
];

/**
 * In the order planned, the rest in the catalogue's. `opened` is a test somebody went to by name: from
 * what to do next, or from a flag.
 */
export function stopsOf(
  catalogue: Catalogue,
  screen: Screen,
  fields: Fields,
  opened: string | null,
): Stop[] {
  const planned = screen.record.planned ?? [];
  const wanted = new Set<string>(planned);
  if (opened !== null) wanted.add(opened);
  for (const key of fields.keys()) wanted.add(placeOf(key).test);
  const turn = (test: Test) => planned.indexOf(test.code) + 1 || planned.length + 1;
  const tests = catalogue.tests.filter((test) => wanted.has(test.code));
  return inPositions(tests.sort((one, other) => turn(one) - turn(other))).flatMap(
    (position) => position.stops,
  );
}

export const inPositions = (tests: Test[]): Position[] =>
  POSITIONS.map(([code, name]) => ({
    name,
    stops: tests.filter((test) => test.position === code).map((test) => ({ test })),
  })).filter((position) => position.stops.length > 0);

/** How much of what a test asks of a side is answered, 0 to 1. A reason why not answers all of it. */
export function laneShare(
  fields: Fields,
  test: Test,
  schools: Partial<Schema["Schools"]>,
  side: Side,
): number {
  const held = new Map<string, Json>();
  for (const [key, { value }] of fields) {
    const place = placeOf(key);
    if (place.test === test.code && (place.side === side || place.side === null)) {
      held.set(place.field, value);
    }
  }
  if (held.has("declined")) return 1;
  const rows = rowsAsked(test, schools);
  if (rows.length === 0) return held.has("pain") ? 1 : 0;
  const shares = rows.map((measure) => rowShare(test, measure, held));
  return shares.reduce((sum, share) => sum + share, 0) / rows.length;
}

/** Rows that are always asked: when it began to hurt is asked only where it hurts. */
function rowsAsked(test: Test, schools: Partial<Schema["Schools"]>): Measure[] {
  const onlyIfItHurts = test.measures.map((measure) => measure.clock?.onset);
  return stepsFor(test, schools)
    .flatMap((step) => rowsOf(test, step, new Map()))
    .filter((measure) => !onlyIfItHurts.includes(measure.code));
}

/** Answered by itself or by what can stand in its place; of points as many as were pressed. */
function rowShare(test: Test, measure: Measure, held: ReadonlyMap<string, Json>): number {
  const pressed = measure.map?.pressed;
  if (pressed) {
    const list = (code: string) => listed(held.get(valueField(code)));
    const all = measure.choices.map((choice) => choice.code);
    return shareTouched({ tender: list(measure.code), pressed: list(pressed) }, all);
  }
  const twin = twinOf(test, measure);
  const ways = [measure, ...(twin ? [twin] : [])];
  return ways.some(({ code }) => held.has(valueField(code))) ? 1 : 0;
}
