// The stops of the bench: the route's, in its order; then what was planned, recorded or opened beside it.
import type { Catalogue, Measure, Test } from "../../api/catalogue";
import type { Schema, Side } from "../../api/client";
import type { Route } from "../../api/screens";
import { stepTo } from "../../state/domain/addresses";
import { type Fields, type Json, placeOf, valueField } from "../../state/domain/fields";
import { listed, shareTouched } from "../../state/domain/pressing";
import { rowsOf, stepsFor, twinOf } from "../../state/domain/questions";

export interface Stop {
  test: Test;
  position: Test["position"];
  /** Of a test in side-lying the side that is examined now; null where both are, in one go. */
  side: Side | null;
  seconds: number;
}

export interface Position {
  name: string;
  stops: Stop[];
}

const POSITIONS: Record<Test["position"], string> = {
  standing: "Standing",
  sitting: "Sitting",
  supine: "Supine",
  side_lying: "Side-lying",
  prone: "Prone",
};
const USUAL = Object.keys(POSITIONS);

interface Wanted {
  /** Null while the server is away. A route nobody took as the plan leads nowhere. */
  route: Route | null;
  planned: readonly string[];
  fields: Fields;
  /** A test somebody went to by name: from what to do next, or from a flag. */
  opened: string | null;
}

export function stopsOf(catalogue: Catalogue, { route, planned, fields, opened }: Wanted): Stop[] {
  const known = new Map(catalogue.tests.map((test) => [test.code, test]));
  const walked = planned.length > 0 ? (route?.stops ?? []) : [];
  const onTheWay = walked.flatMap(({ test: code, position, sides, seconds }) => {
    const test = known.get(code);
    const lying = position === "side_lying" && sides.length === 1;
    return test ? [{ test, position, side: lying ? (sides[0] ?? null) : null, seconds }] : [];
  });
  const there = new Set(onTheWay.map((stop) => stop.test.code));
  const more = new Set<string>(planned);
  if (opened !== null) more.add(opened);
  for (const key of fields.keys()) more.add(placeOf(key).test);
  const turn = (code: string) => planned.indexOf(code) + 1 || planned.length + 1;
  const beside = catalogue.tests
    .filter((test) => more.has(test.code) && !there.has(test.code))
    .sort(
      (one, other) =>
        USUAL.indexOf(one.position) - USUAL.indexOf(other.position) ||
        turn(one.code) - turn(other.code),
    )
    .map((test) => ({ test, position: test.position, side: null, seconds: 2 * test.seconds }));
  return [...onTheWay, ...beside];
}

/** Which stop an address names: the test, and the side of one in side-lying. */
export function stopAt(stops: readonly Stop[], test: string | null, side: string | null): number {
  const exact = stops.findIndex((stop) => stop.test.code === test && stop.side === side);
  if (exact >= 0) return exact;
  return Math.max(
    0,
    stops.findIndex((stop) => stop.test.code === test),
  );
}

export const benchAt = (screen: string, stop: Stop): string =>
  `${stepTo(screen, "bench", stop.test.code)}${stop.side ? `?side=${stop.side}` : ""}`;

/** In the order of the way: a position that is taken twice stands twice, side-lying once a side. */
export function inPositions(stops: readonly Stop[]): Position[] {
  const found: (Position & { key: string })[] = [];
  for (const stop of stops) {
    const key = `${stop.position} ${stop.side}`;
    const last = found.at(-1);
    if (last?.key === key) {
      last.stops.push(stop);
      continue;
    }
    const name = `${POSITIONS[stop.position]}${stop.side ? `, ${stop.side}` : ""}`;
    const again = found.some((each) => each.key === key);
    found.push({ key, name: again ? `${name} again` : name, stops: [stop] });
  }
  return found;
}

/** How far the way is walked: stops that are filled, and the seconds of those that are not. */
export function progress(stops: readonly Stop[], share: (stop: Stop, side: Side) => number) {
  const left = stops.filter((stop) => !isFilled(stop, share));
  return {
    done: stops.length - left.length,
    seconds: left.reduce((sum, stop) => sum + stop.seconds, 0),
  };
}

export const isFilled = (stop: Stop, share: (stop: Stop, side: Side) => number): boolean =>
  (["left", "right"] as const)
    .filter((side) => stop.side === null || stop.side === side)
    .every((side) => share(stop, side) === 1);

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
