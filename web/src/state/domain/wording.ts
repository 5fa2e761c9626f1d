// The few sentences the web part makes itself. Everything clinical comes from the server.
import type { Catalogue, Compared, Measure } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Difference, Reading } from "../../api/screens";
import { kindOf } from "./kinds";
import { plain, unitOf, whole } from "./parse";

export const SIDE_LETTER: Record<Side, string> = { left: "L", right: "R" };

export const readable = (code: string): string => code.replaceAll("_", " ");

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const PURPOSES: Record<string, string> = {
  squad_screen: "squad screen",
  hip_complaint: "hip complaint",
  ankle_injury: "ankle injury",
  foot_complaint: "foot complaint",
  follow_up: "follow-up",
  return_to_sport: "return to sport",
  teaching: "teaching",
};

export const PURPOSE_CODES: readonly string[] = Object.keys(PURPOSES);

// Which purpose a region belongs to, of those that name one.
const OF_REGION: Record<string, string> = {
  hip: "hip_complaint",
  groin: "hip_complaint",
  thigh: "hip_complaint",
  knee: "hip_complaint",
  leg: "ankle_injury",
  ankle: "ankle_injury",
  foot: "foot_complaint",
};

/** The purpose of what hurts, where the screen has that of another part of the body; else null. */
export function purposeFor(regions: ReadonlySet<string>, purpose: string): string | null {
  const wanted = [...regions].flatMap((region) => OF_REGION[region] ?? []);
  const named = Object.values(OF_REGION).includes(purpose);
  return named && wanted.length > 0 && !wanted.includes(purpose) ? (wanted[0] ?? null) : null;
}

export const purposeName = (code: string): string => PURPOSES[code] ?? readable(code);

export const retakeReason = (catalogue: Catalogue, code: string): string =>
  catalogue.retakes[code] ?? readable(code);

export const gateWords = (catalogue: Catalogue, gate: string): string =>
  catalogue.gates[gate] ?? readable(gate);

/** What opens a gate again. */
export const openingWords = (catalogue: Catalogue, gate: string): string =>
  catalogue.openings[gate] ?? "";

export const criterionWords = (catalogue: Catalogue, code: string): string =>
  catalogue.criteria[code] ?? capital(readable(code));

export const flagName = (catalogue: Catalogue, code: string): string =>
  catalogue.flag_names[code] ?? readable(code.replace(".", " "));

/** A question of the story, as it can be read out. */
export const questionWords = (catalogue: Catalogue, item: string): string =>
  catalogue.questions[item] ?? capital(readable(item.split(".").at(-1) ?? item));

type Unexamined = NonNullable<Reading["coverage"]["unexamined"]>[number];

const WHY_NOT: Record<Unexamined["why"], string> = {
  not_recorded: "",
  held: "(held)",
  declined: "(declined)",
};

export const notExaminedWhy = (why: Unexamined["why"]): string => WHY_NOT[why];

/** When an action is due: a stretch of days, a last day, or nothing said. */
export function dueWords(action: { from: string | null; to: string | null }): string {
  if (action.from && action.to) return `${dayWords(action.from)} to ${dayWords(action.to)}. `;
  return action.to ? `By ${dayWords(action.to)}. ` : "";
}

const STATES: Record<Reading["criteria"][number]["state"], string> = {
  met: "Met:",
  not_met: "Not met:",
  not_tested: "Not tested:",
};

export const criterionState = (state: Reading["criteria"][number]["state"]): string =>
  STATES[state];

const URGENCIES: Record<string, string> = {
  emergency: "Emergency",
  same_day: "Same day",
  refer: "Refer",
  recheck: "Recheck",
  train: "Train",
};

const TO_DO: Record<string, string> = {
  emergency: "Stop and call the emergency number.",
  same_day: "To be seen by a doctor today.",
};

/** What an urgent action asks for, in one sentence. */
export const toDo = (urgency: string): string => TO_DO[urgency] ?? "";

/** What an action is about: the name of its flag. A test tried again early may have no flag. */
export function actionWords(
  action: { code: string; urgency: string },
  catalogue: Catalogue,
): string {
  const named = Object.entries(catalogue.flag_names).find(
    ([code]) => action.code === `${action.urgency}.${code.replaceAll(".", "_")}`,
  );
  return named?.[1] ?? readable(action.code.split(".").at(-1) ?? action.code);
}

export const urgencyName = (code: string): string => URGENCIES[code] ?? readable(code);

/** The side a difference speaks against, by the measure's polarity; null where neither does. */
export function findingSide(measure: Compared, difference: number): Side | null {
  if (difference === 0) return null;
  const towardsLeft = measure.polarity === "lower" ? difference < 0 : difference > 0;
  return towardsLeft ? "left" : "right";
}

/** "L tighter by 12°" or "within error"; differences in whole units. */
export function differenceWords(measure: Compared, found: Difference): string {
  if (found.verdict === "within_error") return "within error";
  const side = findingSide(measure, found.difference);
  const by = `${whole(found.difference)}${unitOf(measure)}`;
  if (!side) return "no difference";
  return `${SIDE_LETTER[side]} ${measure.words.finding} by ${by}`;
}

export const errorWords = (measure: Compared, found: Difference): string =>
  `error ${plain(found.mdc95)}${unitOf(measure)}`;

/** How the sign goes, for the bar that asks. */
export function signWords(measure: Measure): string | null {
  if (!kindOf(measure).dial) return null;
  return `− ${measure.words.negative}, + ${measure.words.positive}`;
}

const MONTHS = "Jan Feb Mar Apr May Jun Jul Aug Sept Oct Nov Dec".split(" ");

/** A calendar day, the same in every time zone. */
export function dayWords(iso: string): string {
  const [year = 1970, month = 1, day = 1] = iso.slice(0, 10).split("-").map(Number);
  return `${day} ${MONTHS[month - 1]} ${year}`;
}

export function ageOn(birth: string | null, day: string): number | null {
  if (!birth) return null;
  const years = Number(day.slice(0, 4)) - Number(birth.slice(0, 4));
  return day.slice(5, 10) < birth.slice(5, 10) ? years - 1 : years;
}

/** Today in the clinic's time zone, as YYYY-MM-DD, whatever zone this device is set to. */
export function today(zone: string, now = new Date()): string {
  const parts = new Intl.DateTimeFormat("en", {
    timeZone: zone,
    year: "numeric",
    month: "2-digit",
    day: "2-digit",
  }).formatToParts(now);
  const part = (type: string) => parts.find((each) => each.type === type)?.value ?? "";
  return `${part("year")}-${part("month")}-${part("day")}`;
}

const PARTS: Record<string, string> = {
  answers: "what was recorded",
  story: "the story",
  plan: "the plan",
  overrides: "an opened gate",
  athlete: "the athlete's facts",
  schools: "how values are read",
  screen: "the screen's day or purpose",
  errors: "the error figures",
  earlier: "an earlier screen",
  rules: "the rules",
};

/** A part of what a reading is made from. */
export const partWords = (part: string): string => PARTS[part] ?? readable(part);
