// The reading as a ledger: a row a finding, the athlete's left and right beside each other, and beside
// the words what was measured for them.
import type { Catalogue, Measure, Step, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Difference, Flag, Reading, Screen } from "../../api/screens";
import { fieldsOf, type Json, keyMeasures, type Lane, placeOf } from "./fields";
import { kindOf } from "./kinds";
import { plain, shownNumber } from "./parse";
import { listed, pressingWords } from "./pressing";

export const SIDES: readonly Side[] = ["left", "right"];

type RuledDown = Reading["ruled_down"][number];
type Retake = Reading["retake"][number];

/** What a row rests on: a test that was recorded, and the step, measure or list of it that is shown. */
export interface Ground {
  test: Test;
  step: Step | null;
  /** The number of the row; none where it is answered in words or on a drawing. */
  measure: Measure | null;
  /** Answered on a drawing. */
  onMap: Measure | null;
}

export interface LedgerRow {
  code: string;
  flags: Partial<Record<Side, Flag>>;
  ruledDown: Partial<Record<Side, RuledDown>>;
  ground: Ground | null;
  difference: Difference | null;
}

/** What was recorded of a test on one side. */
export interface Recorded {
  values: ReadonlyMap<string, Json>;
  pain: Json;
  declined: string | null;
}

export type Records = (test: string, side: Side) => Recorded;

/** Everything recorded, asked by test and side. What belongs to no side is told of both. */
export function recordsOf(record: Screen["record"], catalogue: Catalogue): Records {
  const found = new Map<
    string,
    { values: Map<string, Json>; pain: Json; declined: string | null }
  >();
  const at = (test: string, side: Lane) => {
    const key = `${test} ${side ?? ""}`;
    const own = found.get(key) ?? { values: new Map(), pain: null, declined: null };
    found.set(key, own);
    return own;
  };
  for (const [key, { value }] of fieldsOf(record, keyMeasures(catalogue))) {
    const { test, side, field } = placeOf(key);
    const own = at(test, side);
    if (field.startsWith("values.")) own.values.set(field.slice("values.".length), value);
    else if (field === "pain") own.pain = value;
    else if (field === "declined") own.declined = String(value);
  }
  return (test, side) => {
    const [own, whole] = [at(test, side), at(test, null)];
    return {
      values: new Map([...whole.values, ...own.values]),
      pain: own.pain ?? whole.pain,
      declined: own.declined ?? whole.declined,
    };
  };
}

/** The entry a reason points at, by its place in the record. */
export function entryAt(record: Screen["record"], at: string): { test: string; side: Lane } | null {
  const place = /^entries\[(\d+)\]/.exec(at)?.[1];
  const entry = place === undefined ? undefined : record.entries[Number(place)];
  return entry ? { test: entry.test, side: entry.side ?? null } : null;
}

/** Rows of what is flagged, in the reading's order, then of what is only ruled down. */
export function ledgerRows(reading: Reading, record: Screen["record"], catalogue: Catalogue) {
  const recorded = recordsOf(record, catalogue);
  const sided = [...reading.flags, ...reading.ruled_down].filter((item) => item.side !== null);
  const rows = [...new Set(sided.map((item) => item.code))].map((code): LedgerRow => {
    const bySide = <T extends { code: string; side: Side | null }>(items: readonly T[]) =>
      Object.fromEntries(
        items.flatMap((item) => (item.code === code && item.side ? [[item.side, item]] : [])),
      ) as Partial<Record<Side, T>>;
    const flags = bySide(reading.flags);
    const ground = groundOf(Object.values(flags), { reading, record, catalogue, recorded });
    return {
      code,
      flags,
      ruledDown: bySide(reading.ruled_down),
      ground,
      difference: differenceOf(ground, reading),
    };
  });
  const flagged = (row: LedgerRow) => Object.keys(row.flags).length > 0;
  return { flagged: rows.filter(flagged), cleared: rows.filter((row) => !flagged(row)), recorded };
}

interface Known {
  reading: Reading;
  record: Screen["record"];
  catalogue: Catalogue;
  recorded: Records;
}

/** What is shown for a flag: the first test behind it that can be shown, else the first that was recorded. */
function groundOf(flags: readonly Flag[], known: Known): Ground | null {
  const codes = flags
    .flatMap((flag) => flag.because)
    .flatMap(({ at }) => entryAt(known.record, at)?.test ?? []);
  const grounds = [...new Set(codes)].flatMap((code) => {
    const test = known.catalogue.tests.find((candidate) => candidate.code === code);
    return test ? [groundIn(test, known)] : [];
  });
  return grounds.find(({ step, onMap }) => step !== null || onMap !== null) ?? grounds[0] ?? null;
}

function groundIn(test: Test, { reading, recorded }: Known): Ground {
  const values = SIDES.map((side) => recorded(test.code, side).values);
  const given = (code: string) => values.some((own) => shownable(own.get(code)));
  const apart = new Set(
    reading.differences
      .filter((found) => found.test === test.code && found.verdict !== "within_error")
      .map((found) => found.measure),
  );
  const numbers = test.measures.filter(
    (measure) => measure.per_side && kindOf(measure).asked === "number" && given(measure.code),
  );
  const measure = numbers.find(({ code }) => apart.has(code)) ?? numbers[0] ?? null;
  const listed = test.measures.filter(
    (each) => each.map && values.some((own) => own.has(each.code)),
  );
  const steps = test.steps.filter((step) => step.figure !== null);
  const step =
    steps.find((each) => measure !== null && each.measures.includes(measure.code)) ??
    steps[0] ??
    null;
  return { test, step, measure, onMap: listed[0] ?? null };
}

const shownable = (value: Json): boolean => shownNumber(value ?? null, "mean") !== null;

function differenceOf(ground: Ground | null, reading: Reading): Difference | null {
  const { test, measure } = ground ?? {};
  if (!test || !measure) return null;
  return (
    reading.differences.find(
      (found) => found.test === test.code && found.measure === measure.code,
    ) ?? null
  );
}

/** The numbers of a step as a figure takes them. */
export function figureNumbers(test: Test, own: Recorded, how: "mean" | "median") {
  const numbers: Record<string, number | null> = {};
  for (const { code } of test.measures) {
    const value = own.values.get(code);
    numbers[code] = value === undefined ? null : finite(shownNumber(value, how));
  }
  return numbers;
}

const finite = (value: number | null): number | null =>
  value !== null && Number.isFinite(value) ? value : null;

/** What was recorded of a test on a side, in a few words; null where nothing was. */
export function recordedWords(test: Test, own: Recorded, how: "mean" | "median"): string | null {
  const pressed = new Set(test.measures.flatMap((measure) => measure.map?.pressed ?? []));
  const said = test.measures.flatMap((measure) => {
    const value = own.values.get(measure.code);
    if (value === undefined || measure.code === test.key || pressed.has(measure.code)) return [];
    if (measure.map?.pressed)
      return [pointsWords(measure, value, own.values.get(measure.map.pressed))];
    return [`${measure.label.toLowerCase()} ${kindOf(measure).said(value, measure, how)}`];
  });
  return said.length > 0 ? said.slice(0, MOST_SAID).join(" · ") : null;
}

const MOST_SAID = 3;

/** How many points were pressed, and which hurt. */
function pointsWords(measure: Measure, tender: Json, pressed: Json): string {
  const label = (code: string) =>
    measure.choices.find((choice) => choice.code === code)?.label ?? code;
  const all = measure.choices.map((choice) => choice.code);
  return pressingWords({ tender: listed(tender), pressed: listed(pressed) }, all, label);
}

/** Differences that no row above shows: the real ones, and those within error. */
export function otherDifferences(reading: Reading, rows: readonly LedgerRow[]) {
  const shown = new Set(rows.map((row) => row.difference));
  const rest = reading.differences.filter((found) => !shown.has(found));
  const within = (found: Difference) => found.verdict === "within_error";
  return { real: rest.filter((found) => !within(found)), within: rest.filter(within) };
}

/** Takes to be done again that belong to the test a row rests on. */
export const retakesOf = (reading: Reading, ground: Ground | null, side: Side): Retake[] =>
  reading.retake.filter(
    (item) => item.test === ground?.test.code && (item.side === side || item.side === null),
  );

/** Takes to be done again that no row shows. */
export function otherRetakes(reading: Reading, rows: readonly LedgerRow[]): Retake[] {
  const shown = new Set(rows.map((row) => row.ground?.test.code));
  return reading.retake.filter((item) => !shown.has(item.test));
}

type Follows = NonNullable<Reading["follows"]>[number];
const FOLLOWS_UNITS: Record<Follows["unit"], string> = {
  deg: "°",
  N·m: " N·m",
  "N·m/kg": " N·m/kg",
  percent: " %",
  "1": "",
};
// Where the whole is about one, a tenth says too little.
const FINE: readonly Follows["unit"][] = ["1", "N·m/kg"];

/** A value that follows from others, or that a part of it is missing. */
export function followsWords(item: Follows, side: Side): string {
  const value = item[side];
  if (value === null) return "not known";
  const said = FINE.includes(item.unit) ? value.toFixed(2) : plain(value);
  return `${said}${FOLLOWS_UNITS[item.unit]}`;
}
