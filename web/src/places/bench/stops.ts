// The stops of a screen: what is planned, what was recorded without being planned, what was opened.
import type { Catalogue, Test } from "../../api/catalogue";
import type { Schema, Side } from "../../api/client";
import type { Screen } from "../../api/screens";
import { type Fields, placeOf, valueField } from "../../state/fields";
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
  const held = new Set<string>();
  for (const key of fields.keys()) {
    const place = placeOf(key);
    if (place.test === test.code && (place.side === side || place.side === null)) {
      held.add(place.field);
    }
  }
  if (held.has("declined")) return 1;
  const asked = askedOf(test, schools);
  const answered = asked.filter((fields) => fields.some((field) => held.has(field)));
  return answered.length / asked.length;
}

/** Each thing asked as the fields that answer it: a measure, or the one that can stand in its place. */
function askedOf(test: Test, schools: Partial<Schema["Schools"]>): string[][] {
  const onlyIfItHurts = test.measures.map((measure) => measure.clock?.onset);
  const rows = stepsFor(test, schools)
    .flatMap((step) => rowsOf(test, step, new Map()))
    .filter((measure) => !onlyIfItHurts.includes(measure.code));
  if (rows.length === 0) return [["pain"]];
  return rows.map((measure) => {
    const twin = twinOf(test, measure);
    return [measure, ...(twin ? [twin] : [])].map(({ code }) => valueField(code));
  });
}
