// From what was typed to a value, and back. Ranges and dials are judged by the server's core;
// here only what is no number at all is refused, at once and in words.
import type { Compared, Measure } from "../../api/catalogue";
import type { Json } from "./fields";
import { fromMillimetres, type LengthUnit, toMillimetres } from "./length";

/** Seen to the end, not measured: no number anywhere. */
export const LOOKS_FULL = "looks_full";

export type DialCode = "zero_neutral" | "ninety_neutral" | "one_eighty_neutral";
export type Direction = 1 | -1;

export interface DialSetting {
  dial: DialCode;
  direction: Direction;
}

export interface RawReading extends DialSetting {
  reading: number;
}

export type Parsed =
  | { kind: "empty" }
  | { kind: "value"; value: Json }
  | { kind: "fault"; problem: string };

const NUMBER = /^[+-]?(\d+([.,]\d*)?|[.,]\d+)$/;
/** As many as a record may hold: one that came from a file can be mended here. */
export const MOST_TRIALS = 10;

/** One or more numbers with spaces between: the trials. With a dial they are raw readings. */
export function parseTrials(
  text: string,
  dial: DialSetting | null,
  unit: LengthUnit = "mm",
): Parsed {
  const words = text
    .replaceAll("−", "-")
    .trim()
    .split(/[\s;]+/)
    .filter(Boolean);
  if (words.length === 0) return { kind: "empty" };
  const numbers: number[] = [];
  for (const word of words) {
    if (word === "-" || word === "+") {
      return { kind: "fault", problem: `A number is missing after ${word === "-" ? "−" : "+"}.` };
    }
    if (!NUMBER.test(word)) {
      return { kind: "fault", problem: `“${word}” is not a number. Type 8, −4 or 12.5.` };
    }
    const number = Number(word.replace(",", "."));
    if (dial && number < 0) {
      return { kind: "fault", problem: "A dial shows no minus. Say the direction instead." };
    }
    numbers.push(toMillimetres(number, unit));
  }
  if (numbers.length > MOST_TRIALS) {
    return { kind: "fault", problem: `At most ${MOST_TRIALS} trials, with spaces between.` };
  }
  const values = dial ? numbers.map((reading): RawReading => ({ reading, ...dial })) : numbers;
  return { kind: "value", value: values.length === 1 ? values[0] : values };
}

export const isRaw = (value: Json): value is RawReading =>
  typeof value === "object" && value !== null && "reading" in value;

const listOf = (value: Json): Json[] => (Array.isArray(value) ? value : [value]);

/** The dial a kept value was read from, if it was. */
export function dialOf(value: Json): DialSetting | null {
  const first = listOf(value)[0];
  return isRaw(first) ? { dial: first.dial, direction: first.direction } : null;
}

/** What was typed, as it can be typed again. */
export function textOf(value: Json, unit: LengthUnit = "mm"): string {
  if (value === null || value === undefined || value === LOOKS_FULL) return "";
  return listOf(value)
    .map((item) => (isRaw(item) ? String(item.reading) : itemText(item, unit)))
    .join(" ")
    .replaceAll("-", "−");
}

const itemText = (item: Json, unit: LengthUnit): string =>
  typeof item === "number" ? String(fromMillimetres(item, unit)) : String(item);

/** The trials as numbers in the measure's unit. */
export function trialsOf(value: Json): number[] {
  if (value === null || value === undefined || value === LOOKS_FULL) return [];
  return listOf(value).map((item) => {
    if (!isRaw(item)) return Number(item);
    const neutral = { zero_neutral: 0, ninety_neutral: 90, one_eighty_neutral: 180 }[item.dial];
    const away =
      item.dial === "one_eighty_neutral" ? neutral - item.reading : item.reading - neutral;
    // No minus zero on the screen.
    return away * item.direction || 0;
  });
}

/** The number the eye needs: mean or median of the trials, as the clinic reads them. */
export function shownNumber(value: Json, how: "mean" | "median"): number | null {
  const trials = trialsOf(value);
  if (trials.length === 0) return null;
  if (how === "mean") return trials.reduce((sum, trial) => sum + trial, 0) / trials.length;
  const sorted = [...trials].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  const upper = sorted[middle] ?? 0;
  return sorted.length % 2 ? upper : ((sorted[middle - 1] ?? 0) + upper) / 2;
}

export const UNIT_WORDS: Record<Measure["unit"], string> = {
  deg: "°",
  mm: " mm",
  s: " s",
  N: " N",
  kg: " kg",
  "1": "",
};

export const unitOf = (measure: Compared): string => UNIT_WORDS[measure.unit];

/** As precisely as measured, at most one decimal; a true minus sign. */
export function plain(value: number): string {
  const rounded = Math.round(Math.abs(value) * 10) / 10;
  return `${value < 0 && rounded > 0 ? "−" : ""}${rounded}`;
}

/** As many as are said where no instrument tells more; without a sign. */
export const whole = (value: number): string => String(Math.round(Math.abs(value)));

/** Where zero lies within what is usual, a plus tells as much as a minus; elsewhere it is noise. */
export function signed(value: number, measure: Compared): string {
  // Only angles have a neutral position to go either way from.
  const aroundZero = measure.unit === "deg" && (measure.usual?.[0] ?? 0) <= 0;
  const plus = aroundZero && value > 0 ? "+" : "";
  return `${plus}${plain(value)}`;
}
