// Where one can go, in one list: routes, navigation and the path of a screen are made from it.
import type { Session } from "../../api/session";

type Role = Session["role"];

interface PlaceAddress {
  path: string;
  /** As the bar names it. */
  name: string;
  roles: readonly Role[] | "everyone";
  /** What may follow in the address. */
  rest?: string;
}

interface StepAddress {
  /** Behind the screen's own address. */
  step: string;
  name: string;
  /** What may follow in the address. */
  rest: string;
}

/** Places that stand by themselves; the first is where one begins. */
export const PLACES = [
  { path: "/day", name: "Day", roles: "everyone" },
  { path: "/people", name: "People", roles: "everyone" },
  { path: "/tests", name: "Tests", rest: "/:test?", roles: "everyone" },
  { path: "/settings", name: "Settings", rest: "/:part?", roles: "everyone" },
] as const satisfies readonly PlaceAddress[];

/** The path of a screen, in the order in which it is walked. */
export const STEPS = [
  { step: "story", name: "Story", rest: "/:part?" },
  { step: "route", name: "Route", rest: "" },
  { step: "bench", name: "Bench", rest: "/:test?" },
  { step: "reading", name: "Reading", rest: "/:signature?" },
  { step: "sheet", name: "Sheet", rest: "/:kind?" },
] as const satisfies readonly StepAddress[];

/** The catalogue to read, one test after the other. */
export const TESTS = PLACES[2];

export const testTo = (code: string): string => `${TESTS.path}/${code}`;

export const SETTINGS = PLACES[3];

/** Where a second device comes in with a code. */
export const PAIR = "/pair";

/** The audit of a record, for owners. */
export const auditTo = (noun: "athlete" | "screen", key: string): string =>
  `${SETTINGS.path}/audit?noun=${noun}&key=${key}`;

/** One athlete over time. */
export const ATHLETE = { path: "/athletes/:athlete", name: "Athlete" } as const;

export const athleteTo = (athlete: string): string => `/athletes/${athlete}`;

export type PlaceName = (typeof PLACES | typeof STEPS)[number]["name"] | typeof ATHLETE.name;
type Step = (typeof STEPS)[number]["step"];

export const placesFor = (role: Role): PlaceAddress[] =>
  PLACES.filter((place: PlaceAddress) => place.roles === "everyone" || place.roles.includes(role));

export const stepTo = (screen: string, step: Step, rest: string | number | null = null): string =>
  `/screens/${screen}/${step}${rest === null ? "" : `/${rest}`}`;

export const stepsOf = (screen: string): { name: string; to: string }[] =>
  STEPS.map(({ step, name }) => ({ name, to: stepTo(screen, step) }));

/** The screen an address belongs to, if it is a step of one. */
export const screenIn = (address: string): string | null =>
  /^\/screens\/([^/]+)\//.exec(address)?.[1] ?? null;

/** The place an address leads to. */
export function placeAt(address: string): PlaceName {
  if (address.startsWith("/athletes/")) return ATHLETE.name;
  const step = STEPS.find((each) => address.split("/")[3] === each.step && screenIn(address));
  return (step ?? PLACES.find((each) => address.startsWith(each.path)) ?? PLACES[0]).name;
}
