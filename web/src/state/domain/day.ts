// What a day needs, sorted: what cannot wait, who comes today, what opens and runs out.

import type { Catalogue } from "../../api/catalogue";
import type { Day, DueAction, OpenScreen } from "../../api/day";
import { type ActionOf, isInHand } from "./arranging";
import { lazily } from "./lazily";
import { isUrgent } from "./urgent";
import { actionWords, dayWords } from "./wording";

const DAY_MS = 86_400_000;
/** Days a strip shows before today, and in all. */
export const BEFORE = 7;
export const SHOWN = 21;

/** Whole days from one calendar day to another. */
export function daysBetween(from: string, to: string): number {
  const at = (day: string) => Date.UTC(+day.slice(0, 4), +day.slice(5, 7) - 1, +day.slice(8, 10));
  return Math.round((at(to) - at(from)) / DAY_MS);
}

export function plusDays(day: string, days: number): string {
  const at = new Date(Date.UTC(+day.slice(0, 4), +day.slice(5, 7) - 1, +day.slice(8, 10)));
  return new Date(at.getTime() + days * DAY_MS).toISOString().slice(0, 10);
}

/** Whether a calendar could hold it: booked, or a stretch of days. */
export const hasDays = ({ standing, start, end }: DueAction): boolean =>
  standing.arranged !== null || standing.again !== null || (start !== null && end !== null);

/** An action with days, told in days from today: negative lies behind. */
export interface Running {
  action: DueAction;
  /** Others of the same screen and side that ask for the same on the same days. */
  also: DueAction[];
  /** A stretch between two days to look again, or a line to a last day. */
  kind: "again" | "until";
  from: number;
  to: number | null;
  booked: number | null;
  words: string;
  /** Its days are here, or past. */
  due: boolean;
}

export const nameOf = (action: DueAction, catalogue: Catalogue): string =>
  action.standing.again?.note ||
  action.says ||
  actionWords({ code: action.standing.action, urgency: action.urgency }, catalogue);

/** As a step about it names it. */
export const actionOf = ({ standing, urgency }: DueAction): ActionOf => ({
  code: standing.action,
  side: standing.side,
  urgency,
});

/** A day of which only the actions are asked: those of one athlete. */
export const dayOf = (day: string, actions: DueAction[]): Pick<Day, "day" | "actions"> => ({
  day,
  actions,
});

/** What cannot wait and is in nobody's hands. */
export const cannotWait = (day: Pick<Day, "actions">): DueAction[] =>
  day.actions.filter((action) => isUrgent(action) && !isInHand(action.standing));

/** Booked for today, by the clock; what has no time comes last. */
export const bookedToday = (day: Day): DueAction[] =>
  day.actions
    .filter((action) => action.standing.arranged?.on === day.day)
    .sort((one, two) => timeOf(one).localeCompare(timeOf(two)));

const timeOf = ({ standing }: DueAction): string => standing.arranged?.at_time ?? "99:99";

/** What opens and runs out, soonest first; what has no last day at the end. */
export function runningOut(day: Pick<Day, "day" | "actions">, catalogue: Catalogue): Running[] {
  const rows = new Map<string, Running>();
  for (const action of day.actions) {
    if (isUrgent(action) && !isInHand(action.standing)) continue;
    const row = running(action, day.day);
    const { screen, standing } = action;
    const key = [
      screen,
      standing.side,
      nameOf(action, catalogue),
      row.from,
      row.to,
      row.booked,
    ].join();
    const same = rows.get(key);
    if (same) same.also.push(action);
    else rows.set(key, row);
  }
  return [...rows.values()].sort((one, two) => ends(one) - ends(two));
}

const ends = ({ to, booked }: Running): number => to ?? booked ?? Number.MAX_SAFE_INTEGER;

function running(action: DueAction, today: string): Running {
  const { standing, start, end, found } = action;
  const again = standing.again;
  const days = (day: string) => daysBetween(today, day);
  const stretch = again?.on && again.until ? { from: again.on, to: again.until } : null;
  const looked = stretch ?? (start && end ? { from: start, to: end } : null);
  const booked = standing.arranged?.on ? days(standing.arranged.on) : null;
  const shape = looked
    ? { kind: "again" as const, from: days(looked.from), to: days(looked.to) }
    : { kind: "until" as const, from: days(found), to: end ? days(end) : null };
  const due = booked !== null ? booked <= 0 : looked ? shape.from <= 0 : true;
  return { action, also: [], ...shape, booked, due, words: stateWords(shape, booked, today) };
}

/** How it stands, in a few words: past, open, opening, or its last day. */
function stateWords(
  { kind, from, to }: Pick<Running, "kind" | "from" | "to">,
  booked: number | null,
  today: string,
): string {
  if (booked === 0) return "booked today";
  if (to !== null && to < 0) return `past by ${count(-to)}${booked !== null ? ", booked" : ""}`;
  if (booked !== null && booked < 0) return `was booked for ${dayWords(plusDays(today, booked))}`;
  if (booked !== null && to === null) return `booked ${near(booked, today)}`;
  if (kind === "until") return to === null ? "no last day named" : `last day ${near(to, today)}`;
  if (from > 0) return `opens ${near(from, today)}`;
  return to === 0 ? "last day today" : `open, ${count(to ?? 0)} left`;
}

const count = (days: number): string => `${days} ${days === 1 ? "day" : "days"}`;

const WEEKDAY = lazily(
  () => new Intl.DateTimeFormat("en-GB", { weekday: "long", timeZone: "UTC" }),
);

/** A day that is near by its weekday, one further off by its date. */
export function near(days: number, today: string): string {
  if (days === 0) return "today";
  if (days === 1) return "tomorrow";
  const day = plusDays(today, days);
  return days > 1 && days < 7 ? WEEKDAY().format(new Date(`${day}T00:00:00Z`)) : dayWords(day);
}

/** When something was found, as one says it. */
export function foundWords(found: string, today: string): string {
  const ago = daysBetween(found, today);
  if (ago <= 0) return "Found today.";
  if (ago === 1) return "Found yesterday.";
  return `Found ${dayWords(found)}, ${ago} days ago.`;
}

const LONG_DAY = lazily(
  () =>
    new Intl.DateTimeFormat("en-GB", {
      weekday: "long",
      day: "numeric",
      month: "long",
      timeZone: "UTC",
    }),
);

export const longDay = (day: string): string => LONG_DAY().format(new Date(`${day}T00:00:00Z`));

/** The days of a strip: letter, number, whether the week ends. */
export function stripDays(today: string) {
  return Array.from({ length: SHOWN }, (_, at) => {
    const day = plusDays(today, at - BEFORE);
    const weekday = new Date(`${day}T00:00:00Z`).getUTCDay();
    return {
      day,
      letter: "SMTWTFS".charAt(weekday),
      number: Number(day.slice(8)),
      free: weekday === 0 || weekday === 6,
      today: at === BEFORE,
    };
  });
}

/** Where a day begins on a strip, in percent of its width; what lies outside ends at its edge. */
export const atPercent = (days: number): number =>
  (Math.min(Math.max(days + BEFORE, 0), SHOWN) / SHOWN) * 100;

/** Where an open screen goes on: told, examined, or read. */
export function goesOn(screen: OpenScreen): { step: "story" | "bench" | "reading"; says: string } {
  if (screen.planned === null || (screen.planned === 0 && screen.done === 0)) {
    return { step: "story", says: "Open" };
  }
  if (screen.done === 0) return { step: "bench", says: "Begin" };
  return screen.open === 0
    ? { step: "reading", says: "Read, sign" }
    : { step: "bench", says: "Go on" };
}

/** "9 of 14 begun, 3 not examined", or that it is being read: a test half done leaves something out. */
export function doneWords({ planned, done, unexamined }: OpenScreen): string {
  if (planned === null) return "being read";
  if (planned === 0) return "nothing planned yet";
  return `${done} of ${planned} begun${unexamined ? `, ${unexamined} not examined` : ""}`;
}

const COUNTED = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine"];

/** What to do first, in one sentence. */
export function firstWords(day: Day, running: readonly Running[]): string {
  const urgent = cannotWait(day).length;
  if (urgent > 0)
    return `${COUNTED[urgent] ?? urgent} ${urgent === 1 ? "thing" : "things"} cannot wait.`;
  const [next] = bookedToday(day);
  if (next) return `Next: ${next.athlete.name}.`;
  if (running.some((each) => each.due)) return "Nothing is urgent. Some days are running out.";
  if (day.open_total > 0) return "Nothing is urgent. Screens are open.";
  return "Nothing is open or due. Choose who comes.";
}

/** Where a strip has room for words: behind what is drawn and today, or over it. */
export function wordsAt(end: number): { over: boolean; at: number } {
  const after = Math.max(end, atPercent(0)) + 1.5;
  return after <= 62 ? { over: false, at: after } : { over: true, at: 1.5 };
}
