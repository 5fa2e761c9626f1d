// What was told, as it stands and waits, and which questions it makes relevant.
import type { Catalogue } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { type Json, type Lane, type Place, placeOf } from "../domain/fields";
import type { BenchState } from "./bench_state";

export type StoryData = Catalogue["story"];
type Topic = StoryData["topic"][number];
export type Facts = ReadonlyMap<string, Json>;

export const STORY = "story";

export const told = (field: string, side: Lane = null, key = ""): Place => ({
  test: STORY,
  side,
  key,
  field,
});

/** Of one kind everything that stands, with what waits to be sent over it, by place. */
export function factsOf(state: Pick<BenchState, "fields" | "waiting">, test = STORY): Facts {
  const found = new Map<string, Json>();
  for (const [key, { value }] of state.fields)
    if (key.startsWith(`${test}|`)) found.set(key, value);
  for (const [key, value] of state.waiting) {
    if (!key.startsWith(`${test}|`)) continue;
    if (value === null) found.delete(key);
    else found.set(key, value);
  }
  return found;
}

export const factAt = (facts: Facts, field: string): Json => facts.get(`${STORY}|||${field}`);

export interface SorePlace {
  site: string;
  /** Null for a site a file names without its side. */
  side: Lane;
  now: number | null;
  worst: number | null;
}

/** Where it hurts, in the order it was told. What is told of a place makes it one. */
export function sorePlaces(facts: Facts): SorePlace[] {
  const found = new Map<string, SorePlace>();
  for (const [key, value] of facts) {
    const { side, key: site, field } = placeOf(key);
    if (field !== "here" && field !== "now" && field !== "worst") continue;
    const own = `${side} ${site}`;
    const place = found.get(own) ?? { site, side, now: null, worst: null };
    found.set(own, field === "here" ? place : { ...place, [field]: value });
  }
  // A site alone says no more than the same site with its side.
  const sided = new Set([...found.values()].filter((p) => p.side !== null).map((p) => p.site));
  return [...found.values()].filter((place) => place.side !== null || !sided.has(place.site));
}

export interface HistoryLine {
  key: string;
  line: { [part: string]: Json };
}

export const historyLines = (facts: Facts): HistoryLine[] =>
  [...facts]
    .map(([key, value]) => ({ ...placeOf(key), value }))
    .filter(({ field }) => field === "history")
    .map(({ key, value }) => ({ key, line: value as HistoryLine["line"] }));

/** What a topic can depend on. */
export interface Told {
  regions: ReadonlySet<string>;
  sites: ReadonlySet<string>;
  sides: ReadonlySet<Side>;
  kind: "sudden" | "gradual" | "open";
}

// A mechanism that is no injury leaves the kind open.
const NO_INJURY: ReadonlySet<Json> = new Set(["overload", "none"]);

export function toldOf(facts: Facts, catalogue: Catalogue): Told {
  const places = sorePlaces(facts);
  const regionOf = new Map(catalogue.sites.map((site) => [site.code, site.region as string]));
  const written = factAt(facts, "complaint.region");
  const regions = new Set(places.map(({ site }) => regionOf.get(site) ?? ""));
  if (typeof written === "string") regions.add(written);
  const side = factAt(facts, "complaint.side");
  const sides = new Set<Side>(places.flatMap((place) => (place.side ? [place.side] : [])));
  for (const own of ["left", "right"] as const) if (side === own || side === "both") sides.add(own);
  return { regions, sites: new Set(places.map(({ site }) => site)), sides, kind: kindOf(facts) };
}

function kindOf(facts: Facts): Told["kind"] {
  const kind = factAt(facts, "onset.kind");
  if (kind === "sudden" || kind === "gradual") return kind;
  const mechanism = factAt(facts, "onset.mechanism");
  return mechanism !== undefined && !NO_INJURY.has(mechanism) ? "sudden" : "open";
}

const holds = (topic: Topic, told: Told): boolean =>
  meets(topic.regions, told.regions) &&
  meets(topic.sites, told.sites) &&
  (topic.kinds.length === 0 || topic.kinds.includes(told.kind));

const meets = (wanted: readonly string[], have: ReadonlySet<string>): boolean =>
  wanted.length === 0 || wanted.some((code) => have.has(code));

/**
 * The questions of a kind that the story makes relevant, those the reading asks for first; what was
 * answered once stays in sight.
 */
export function questionsAbout(
  about: Topic["about"],
  story: StoryData,
  told: Told,
  facts: Facts,
  asked: readonly string[],
): string[] {
  const topics = story.topic.filter((topic) => topic.about === about);
  const own = new Set(topics.flatMap((topic) => topic.asks));
  const relevant = topics.filter((topic) => holds(topic, told)).flatMap((topic) => topic.asks);
  const answered = [...own].filter((item) => facts.has(`${STORY}|||${item}`));
  return [...new Set([...asked.filter((item) => own.has(item)), ...relevant, ...answered])];
}

// Where a question is asked that belongs to no topic.
const ASKED_IN: readonly (readonly [RegExp, "where" | "when" | "before"])[] = [
  [/^complaint\./, "where"],
  [/^(onset\.|load_change)/, "when"],
  [/^(birth_date|sex|history)/, "before"],
];

/** The part of the story that asks what a reading asks for; null for what stands with the danger. */
export const partAsking = (item: string): "where" | "when" | "before" | null =>
  ASKED_IN.find(([shape]) => shape.test(item))?.[1] ??
  (item.startsWith("symptoms.") ? "when" : null);

export const stillOpen = (items: readonly string[], facts: Facts): string[] =>
  items.filter((item) => factAt(facts, item) === undefined);

/** Pressing the answer that stands leaves the question open again. */
export const toggled = (facts: Facts, field: string, value: Json): Json =>
  factAt(facts, field) === value ? null : value;

/** A place that was told beats that nothing hurts. */
export const nothingHurts = (facts: Facts): boolean =>
  factAt(facts, "complaint.region") === "none" && sorePlaces(facts).length === 0;
