// The stops of a screen: what is planned, what was recorded without being planned, what was opened.
import type { Catalogue, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Screen } from "../../api/screens";
import { type Fields, isValueField, placeOf } from "../../state/fields";

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

/** Whether a lane of a test holds a value or a reason why not. */
export function laneDone(fields: Fields, test: string, side: Side): boolean {
  for (const key of fields.keys()) {
    const place = placeOf(key);
    const says = isValueField(place.field) || place.field === "declined";
    if (place.test === test && says && (place.side === side || place.side === null)) return true;
  }
  return false;
}
