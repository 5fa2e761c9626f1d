// One description per kind of measure: how it is asked, checked and said. A kind that is missing here
// does not compile.
import type { Compared, Measure } from "../../api/catalogue";
import type { Json } from "./fields";
import { LOOKS_FULL, plain, shownNumber, signed, textOf, trialsOf, unitOf } from "./parse";

export type MeasureKind = Measure["kind"];

export interface Option {
  label: string;
  value: Json;
}

/** What a row is answered with. */
export type Control = "map" | "clock" | "counter" | "points" | "tally" | "number" | "one" | "many";

// Repeats of a handful are tapped as a number, not counted up.
const TALLY_UP_TO = 10;

/** By the measure's own data: a new test needs nothing here. */
export function controlOf(measure: Measure): Control {
  if (measure.map) return "map";
  if (measure.clock) return "clock";
  if (measure.points_for.length > 0) return "points";
  if (measure.kind !== "count") return kindOf(measure).asked;
  return Number(measure.plausible?.[1] ?? 0) <= TALLY_UP_TO ? "tally" : "counter";
}

/** What is offered to tap; of a tally every number there can be. */
export function optionsOf(measure: Measure): Option[] {
  const options = kindOf(measure).options(measure);
  if (controlOf(measure) === "tally") return gradeOptions(measure);
  // The expected answer stands first, in the same place in both lanes.
  const expected = options.findIndex((option) => isExpected(measure, option));
  const choosing = measure.kind === "choice" || measure.kind === "flag";
  if (!choosing || expected <= 0) return options;
  const first = options[expected];
  return first ? [first, ...options.filter((_, place) => place !== expected)] : options;
}

/** What is expected in health, where the catalogue says so. */
export function isExpected(measure: Measure, option: Option): boolean {
  const normal = measure.normal ?? null;
  if (normal === null) return false;
  if (!Array.isArray(normal)) return option.value === normal;
  return normal.length === 0 ? option === NONE : normal.includes(String(option.value));
}

export interface Kind {
  /** The control it is answered with. */
  asked: "number" | "one" | "many";
  /** Read on a goniometer, where a dial can be read the wrong way round. */
  dial: boolean;
  /** Only whole numbers are one. */
  whole: boolean;
  options(measure: Measure): Option[];
  /** A value in words, trials taken together as the clinic reads them. */
  said(value: Json, measure: Measure, how: "mean" | "median"): string;
}

export const NONE: Option = { label: "None of these", value: [] };
const STRENGTH_GRADES = "0 1- 1 1+ 2- 2 2+ 3- 3 3+ 4- 4 4+ 5- 5".split(" ");

const saidNumber = (value: Json, measure: Compared, how: "mean" | "median"): string => {
  if (value === LOOKS_FULL) return "looks full";
  const number = shownNumber(value, how);
  return number === null ? textOf(value) : `${signed(number, measure)}${unitOf(measure)}`;
};

const amount: Kind = {
  asked: "number",
  dial: false,
  whole: false,
  options: () => [],
  said: saidNumber,
};

const choiceOptions = (measure: Measure): Option[] =>
  measure.choices.map((choice) => ({ label: choice.label, value: choice.code }));

const labelOf = (measure: Measure, value: Json): string =>
  measure.choices.find((choice) => choice.code === value)?.label ?? textOf(value);

const one: Kind = {
  asked: "one",
  dial: false,
  whole: false,
  options: choiceOptions,
  said: (value, measure) => labelOf(measure, value),
};

export const KINDS: Record<MeasureKind, Kind> = {
  angle: { ...amount, dial: true },
  length: amount,
  time: amount,
  force: amount,
  mass: amount,
  count: { ...amount, whole: true },
  grade: { ...one, options: gradeOptions, said: (value) => textOf(value) },
  strength: {
    ...one,
    options: () => STRENGTH_GRADES.map((grade) => ({ label: minus(grade), value: grade })),
    said: (value) => textOf(value),
  },
  choice: one,
  choices: {
    ...one,
    asked: "many",
    // Last, so that an Enter too many never says that nothing was found.
    options: (measure) => [...choiceOptions(measure), NONE],
    said: (value, measure) => {
      const held = Array.isArray(value) ? value : [];
      if (held.length === 0) return NONE.label;
      return held.map((code) => labelOf(measure, code)).join(", ");
    },
  },
  flag: {
    ...one,
    options: () => [
      { label: "Yes", value: true },
      { label: "No", value: false },
    ],
    said: (value) => (value === true ? "Yes" : "No"),
  },
};

/** Whether an option is what stands: of many, one of them, or that there is none. */
export function isChosen(kind: Kind, value: Json, option: Option): boolean {
  if (kind.asked !== "many") return value === option.value;
  if (!Array.isArray(value)) return false;
  return option === NONE ? value.length === 0 : value.includes(option.value);
}

/** What stands after a tap: a second one takes it back, and the last of many leaves nothing said. */
export function afterTap(kind: Kind, value: Json, option: Option): Json {
  const on = isChosen(kind, value, option);
  if (kind.asked !== "many") return on ? null : option.value;
  if (option === NONE) return on ? null : [];
  const held = Array.isArray(value) ? value : [];
  const next = on ? held.filter((code) => code !== option.value) : [...held, option.value];
  return next.length > 0 ? next : null;
}

export const kindOf = (measure: Measure): Kind => KINDS[measure.kind];

function gradeOptions(measure: Measure): Option[] {
  const asOption = (value: number): Option => {
    const word = measure.grades[value - Number(measure.plausible?.[0] ?? 0)];
    return { label: word ? `${plain(value)} ${word}` : plain(value), value };
  };
  if (measure.allowed.length > 0) return measure.allowed.map(asOption);
  const [low, high] = measure.plausible ?? [0, 0];
  const count = Math.round(Number(high) - Number(low)) + 1;
  return Array.from({ length: count }, (_, step) => asOption(Number(low) + step));
}

const minus = (text: string): string => text.replace("-", "−");

/** Outside what a limb can show: from the catalogue's data, so that Enter need not wait. */
export function outOfRange(measure: Measure, value: Json): string | null {
  const [low, high] = measure.plausible ?? [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
  for (const trial of trialsOf(value)) {
    if (trial < low || trial > high) return `${trial} is outside ${low} to ${high}.`;
    if (kindOf(measure).whole && !Number.isInteger(trial)) return `${trial} is not a whole number.`;
  }
  return null;
}
