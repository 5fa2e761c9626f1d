// The way through: stops by position, where each may be moved, what each side is told about it.
import type { Catalogue, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Route, Stop } from "../../api/screens";
import type { Json } from "../domain/fields";
import type { Change } from "./bench_state";
import type { Facts } from "./story";

export const ROUTE = "route";

const planPlace = (field: string, value: Json): Change => ({
  test: ROUTE,
  side: null,
  key: "",
  field,
  value,
});

export interface Placed {
  stop: Stop;
  /** As it is counted on the way. */
  number: number;
  /** The first of a test's stops: it can be moved; the other side follows. */
  leads: boolean;
}

export interface Leg {
  position: Stop["position"];
  /** Side-lying is a position for each side. */
  side: Side | null;
  seconds: number;
  stops: Placed[];
}

/** The stops by position, in order; standing again is a leg of its own. */
export function legsOf(stops: readonly Stop[]): Leg[] {
  const legs: Leg[] = [];
  const seen = new Set<string>();
  stops.forEach((stop, index) => {
    const side = lyingSide(stop);
    const last = legs.at(-1);
    const same = last && last.position === stop.position && last.side === side;
    const leg = same ? last : { position: stop.position, side, seconds: 0, stops: [] };
    if (!same) legs.push(leg);
    leg.seconds += stop.seconds;
    leg.stops.push({ stop, number: index + 1, leads: !seen.has(stop.test) });
    seen.add(stop.test);
  });
  return legs;
}

const lyingSide = ({ position, sides }: Stop): Side | null =>
  position === "side_lying" && sides.length === 1 ? (sides[0] ?? null) : null;

/** The tests of a route, in the order they are begun. */
export const testsOn = (route: Route): string[] => [
  ...new Set(route.stops.map((stop) => stop.test)),
];

const stageOf = (route: Route, test: string): boolean =>
  route.stops.some((stop) => stop.test === test && stop.stage === "safety");

/** The order with a test moved to another's place; danger checks stay before everything else. */
export function moved(route: Route, test: string, to: string): string[] {
  const order = testsOn(route);
  const from = order.indexOf(test);
  const target = order.indexOf(to);
  if (from < 0 || target < 0 || stageOf(route, test) !== stageOf(route, to)) return order;
  const next = order.filter((each) => each !== test);
  next.splice(target, 0, test);
  return next;
}

/** The neighbour a test can change places with, or null where safety or the end stands. */
export function neighbour(route: Route, test: string, step: 1 | -1): string | null {
  const order = testsOn(route);
  const other = order[order.indexOf(test) + step];
  return other !== undefined && stageOf(route, test) === stageOf(route, other) ? other : null;
}

export const inOrder = (order: readonly string[]): Change[] => [planPlace("order", [...order])];

/** Where nobody has made a plan yet, what is proposed becomes it first. */
function planFirst(route: Route, planned: readonly string[]): Change[] {
  return planned.length > 0 ? [] : inOrder(testsOn(route));
}

export const takeIn = (route: Route, planned: readonly string[], test: string): Change[] => [
  ...planFirst(route, planned),
  planPlace(`left_out.${test}`, null),
  planPlace(`planned.${test}`, true),
];

export const leaveOut = (planned: readonly string[], test: string, reason: string): Change[] => [
  planPlace(`left_out.${test}`, reason),
  ...(planned.includes(test) ? [planPlace(`planned.${test}`, null)] : []),
];

/** Back where it was asked for: into the plan, or among what is proposed. */
export const putBack = (route: Route, planned: readonly string[], test: string): Change[] =>
  planned.length > 0 ? takeIn(route, planned, test) : [planPlace(`left_out.${test}`, null)];

/** A clinic's own route in place of what is planned. */
export const ownRoute = (
  planned: readonly string[],
  tests: readonly string[],
  reasonsAfter: boolean,
): Change[] => [
  ...planned.filter((test) => !tests.includes(test)).map((t) => planPlace(`planned.${t}`, null)),
  ...inOrder(tests),
  planPlace("reasons_after", reasonsAfter || null),
];

export const startAt = (start: "standing" | "sitting"): Change[] => [planPlace("start", start)];

/** Why a stop is there for a side; grey where it only compares. */
export function whyFor(stop: Stop, side: Side): { says: string; compares: boolean } {
  const held = stop.held.some((each) => each.side === side);
  if (held) return { says: "held", compares: false };
  if (stop.sides.length > 0 && !stop.sides.includes(side)) return { says: "", compares: true };
  const asked = stop.asked_for.length === 0 || stop.asked_for.includes(side);
  return asked ? { says: stop.why, compares: false } : { says: "to compare", compares: true };
}

/** "12 min" or "40 s", as a clock shows it. */
export const clockWords = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, "0")}`;

export const minutesWords = (seconds: number): string => {
  const minutes = Math.max(1, Math.round(seconds / 60));
  return `${minutes} ${minutes === 1 ? "minute" : "minutes"}`;
};

export const turnsWords = (turns: number): string =>
  turns === 0 ? "no turn" : `${turns} ${turns === 1 ? "turn" : "turns"}`;

/** What the order saves against going down the list. */
export function savedWords(route: Route): string {
  const turns = route.plain_turns - route.turns;
  const count = `${route.stops.length} ${route.stops.length === 1 ? "stop" : "stops"}.`;
  return turns > 0 ? `${count} ${turnsWords(turns)} saved against the usual list.` : count;
}

const MOST_FOUND = 6;

/** Tests by any name somebody uses for them, those that begin with it first. */
export function searchTests(
  catalogue: Catalogue,
  text: string,
  without: ReadonlySet<string>,
): Test[] {
  const wanted = text.trim().toLowerCase();
  if (wanted.length < 2) return [];
  const names = (test: Test) => [test.name, ...test.other_names].map((name) => name.toLowerCase());
  const rank = (test: Test) => {
    const own = names(test);
    if (own.some((name) => name.startsWith(wanted))) return 0;
    if (own.some((name) => name.includes(wanted))) return 1;
    const about = `${test.purpose} ${test.code}`.toLowerCase();
    return wanted.split(/\s+/).every((word) => about.includes(word)) ? 2 : null;
  };
  return catalogue.tests
    .map((test) => ({ test, at: rank(test) }))
    .filter(({ test, at }) => at !== null && !without.has(test.code))
    .sort((one, other) => (one.at ?? 0) - (other.at ?? 0))
    .slice(0, MOST_FOUND)
    .map(({ test }) => test);
}

/** The plan as it stands here, with what waits to be sent. */
export function plannedIn(facts: Facts): string[] {
  const order = facts.get(`${ROUTE}|||order`);
  const listed = Array.isArray(order) ? (order as string[]) : [];
  const field = `${ROUTE}|||planned.`;
  const more = [...facts.keys()]
    .filter((key) => key.startsWith(field))
    .map((key) => key.slice(field.length));
  const out = leftOutIn(facts);
  return [...new Set([...listed, ...more])].filter((test) => !out.has(test));
}

export function leftOutIn(facts: Facts): Set<string> {
  const field = `${ROUTE}|||left_out.`;
  const keys = [...facts.keys()].filter((key) => key.startsWith(field));
  return new Set(keys.map((key) => key.slice(field.length)));
}
