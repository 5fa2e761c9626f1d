// The return board: each criterion over the tests for a return, and by how much the newest holds.
import type { Catalogue } from "../../api/catalogue";
import type { Schema } from "../../api/client";
import { plain, UNIT_WORDS } from "../../state/domain/parse";
import { dayWords } from "../../state/domain/wording";

export type ReturnTest = Schema["ReturnTestOut"];
export type BoardRow = Schema["BoardRowOut"];
export type HeldAgainst = Schema["HeldAgainstOut"];

export interface Criterion {
  code: string;
  /** Of each test in turn, null where its record could not be read. */
  over: (BoardRow | null)[];
  newest: BoardRow;
}

/** Rows in the order of the newest test that can be read; none where there is no such test. */
export function criteriaOf(tests: readonly ReturnTest[]): Criterion[] {
  const rows = tests.findLast((test) => test.rows)?.rows ?? [];
  return rows.map((newest) => ({
    code: newest.criterion,
    newest,
    over: tests.map((test) => test.rows?.find((row) => row.criterion === newest.criterion) ?? null),
  }));
}

/** The side that returns, where all that is held against something is of one. */
export function sideOf(criteria: readonly Criterion[]): "left" | "right" | null {
  const sides = new Set(criteria.flatMap(({ newest }) => newest.other?.side ?? []));
  const [only] = sides;
  return sides.size === 1 && only ? only : null;
}

const unitWords: Record<HeldAgainst["unit"], string> = {
  ...UNIT_WORDS,
  percent: " %",
  points: " of 10",
};

/** By how much, as short as it can stand in a cell. */
export function byWords(held: HeldAgainst): string {
  const unit = unitWords[held.unit];
  if (held.unit === "percent" || held.unit === "points") return `${plain(held.by)}${unit}`;
  const sign = held.by > 0 ? "+" : "";
  return `${sign}${plain(held.by)}${unit}`;
}

/** What it is measured with. */
export function limitWords(held: HeldAgainst): string {
  const limit = `${plain(held.limit)}${unitWords[held.unit]}`;
  return held.unit === "percent" ? `from ${limit}` : `up to ${limit}`;
}

/** Of which test, what was measured, and what it is held against. */
export function heldWords(held: HeldAgainst, catalogue: Catalogue): string {
  if (held.test === null) return limitWords(held);
  const test = catalogue.tests.find((each) => each.code === held.test);
  const against = held.since ? `${dayWords(held.since)}` : "the other side";
  const values = `${plain(held.value)} against ${plain(held.against)}`;
  return `${test?.name ?? held.test}: ${values}, ${against}`;
}

export interface Meter {
  /** Where enough begins and ends, and where the value stands, in percent of the width. */
  zone: readonly [number, number];
  at: number;
}

// A percent is shown to a little more than the other side, a difference to twice what is allowed.
const WHOLE_PERCENT = 120;

export function meterOf(held: HeldAgainst): Meter {
  const percent = held.unit === "percent";
  const end = percent ? WHOLE_PERCENT : held.limit * 2 || 1;
  const share = (value: number) => Math.min(Math.max((value / end) * 100, 0), 100);
  return {
    zone: percent ? [share(held.limit), 100] : [0, share(held.limit)],
    at: share(Math.abs(held.by)),
  };
}

/** Tests that would settle what nobody tested, and those of what was not met, each once. */
export function leftToTest(criteria: readonly Criterion[]): { open: string[]; again: string[] } {
  const of = (state: BoardRow["state"]) => [
    ...new Set(
      criteria.filter(({ newest }) => newest.state === state).flatMap(({ newest }) => newest.tests),
    ),
  ];
  return { open: of("not_tested"), again: of("not_met") };
}
