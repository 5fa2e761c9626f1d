// Every place there is, in one list: routes, navigation and the path of a screen are made from it.
import type { ComponentType } from "react";
import type { Session } from "../api/session";
import { Away } from "../components/Away";
import { type Part, part } from "../components/part";

type Role = Session["role"];
type Load = () => Promise<{ default: ComponentType }>;

interface PlaceEntry extends Part<object> {
  path: string;
  /** As the bar names it. */
  name: string;
  roles: readonly Role[] | "everyone";
}

interface StepEntry extends Part<object> {
  /** Behind the screen's own address. */
  step: string;
  name: string;
  /** What may follow in the address. */
  rest: string;
}

/** A place and its code, loaded when it is first gone to. */
const place = (load: Load) => part<object>(load, Away);

/** Places that stand by themselves; the first is where one begins. */
export const PLACES = [
  {
    path: "/people",
    name: "People",
    roles: "everyone",
    ...place(() => import("./people/PeoplePlace")),
  },
  {
    path: "/team",
    name: "Team",
    roles: ["owner"],
    ...place(() => import("./team/TeamPlace")),
  },
] as const satisfies readonly PlaceEntry[];

/** The path of a screen, in the order in which it is walked. */
export const STEPS = [
  {
    step: "bench",
    name: "Bench",
    rest: "/:test?",
    ...place(() => import("./bench/BenchPlace")),
  },
  {
    step: "reading",
    name: "Reading",
    rest: "/:signature?",
    ...place(() => import("./reading/ReadingPlace")),
  },
] as const satisfies readonly StepEntry[];

type Step = (typeof STEPS)[number]["step"];

export const placesFor = (role: Role): PlaceEntry[] =>
  PLACES.filter((place: PlaceEntry) => place.roles === "everyone" || place.roles.includes(role));

export const stepTo = (screen: string, step: Step, rest: string | number | null = null): string =>
  `/screens/${screen}/${step}${rest === null ? "" : `/${rest}`}`;

export const stepsOf = (screen: string): { name: string; to: string }[] =>
  STEPS.map(({ step, name }) => ({ name, to: stepTo(screen, step) }));

/** The screen an address belongs to, if it is a step of one. */
export const screenIn = (address: string): string | null =>
  /^\/screens\/([^/]+)\//.exec(address)?.[1] ?? null;

/** Loads the place an address leads to; needs nobody to be known. */
export function loadAt(address: string): Promise<void> {
  const step = STEPS.find((each) => address.split("/")[3] === each.step && screenIn(address));
  const found = step ?? PLACES.find((each) => address.startsWith(each.path)) ?? PLACES[0];
  return found.load();
}

/** All the rest: what is gone to later opens at once, and with the server away. */
export const loadAll = (): Promise<unknown> =>
  Promise.allSettled([...PLACES, ...STEPS].map((each) => each.load()));
