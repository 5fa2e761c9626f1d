// An athlete over time: which measures are drawn, and what they say.
import type { Catalogue, Compared, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Course, Line, LinePoint } from "../../api/course";
import { measureIn } from "./measures";
import { signed, unitOf, whole } from "./parse";
import { dayWords, readable } from "./wording";

/** One measure with the lines of both sides, or the one of no side. */
export interface Pair {
  key: string;
  test: Test;
  measure: Compared;
  /** Which bone, toe or position, in words; empty where there is one of each side. */
  which: string;
  lines: Partial<Record<Side | "none", Line>>;
}

/** Measures as the catalogue has them; those it no longer knows are left to the screens themselves. */
export function pairsOf(course: Course, catalogue: Catalogue): Pair[] {
  const pairs = new Map<string, Pair>();
  for (const line of course.lines) {
    const found = measureIn(catalogue, line.test, line.measure);
    if (!found) continue;
    const { test, measure } = found;
    const key = `${line.test} ${line.measure} ${line.key}`;
    const pair = pairs.get(key) ?? { key, test, measure, which: readable(line.key), lines: {} };
    pair.lines[line.side ?? "none"] = line;
    pairs.set(key, pair);
  }
  return [...pairs.values()];
}

export const linesOf = (pair: Pair): Line[] => Object.values(pair.lines);

const moved = (pair: Pair): number =>
  Math.max(
    0,
    ...linesOf(pair).map(({ verdict, difference, mdc95 }) =>
      verdict === "changed" && difference !== null && mdc95 ? Math.abs(difference) / mdc95 : 0,
    ),
  );

const taken = (pair: Pair): number => Math.max(...linesOf(pair).map((line) => line.points.length));

const worse = (pair: Pair): number =>
  linesOf(pair).some((line) => line.verdict === "changed" && line.worse) ? 1 : 0;

/** What is worth a drawing: taken more than once on a side; what got worse first, then the longest lines. */
export const drawn = (pairs: readonly Pair[]): Pair[] =>
  pairs
    .filter((pair) => taken(pair) > 1)
    .sort(
      (one, two) => worse(two) - worse(one) || taken(two) - taken(one) || moved(two) - moved(one),
    );

const shown = (value: number, measure: Compared): string =>
  `${signed(value, measure)}${unitOf(measure)}`;

/** "12° higher than 15 Sept 2025, for the worse: beyond error 5.5°", or why it is not compared. */
export function movedWords(line: Line, measure: Compared): string {
  const [first] = line.points.filter((point) => point.validity === "valid");
  const last = line.points.at(-1);
  if (!first || !last || line.points.length < 2) return "taken once";
  if (line.verdict === "not_comparable") return `not compared: ${whyNot(line, last)}`;
  const since = `since ${dayWords(first.date)}`;
  if (line.verdict === "within_error") return `within error ${since}`;
  const by = `${whole(line.difference ?? 0)}${unitOf(measure)}`;
  const way = (line.difference ?? 0) > 0 ? "more" : "less";
  const worth = line.worse === null ? "" : line.worse ? ", for the worse" : ", for the better";
  return `${by} ${way} ${since}${worth}`;
}

const WORTH: Record<LinePoint["validity"], string> = {
  valid: "done another way than at first",
  flattered: "what was seen makes it look too good",
  void: "what was seen makes it worthless",
  held: "held when it was taken",
};

const APART: Record<LinePoint["apart"][number], string> = {
  gap: "more than a year after the one before",
  method: "done another way than before",
  school: "its trials put together otherwise than before",
  examiner: "by another examiner than before",
};

/** Where a line is broken and why, on which days, for beside the drawing. */
export function breakWords(lines: readonly Line[]): string[] {
  const found = lines.flatMap((line) =>
    line.points.flatMap((point) =>
      point.apart.map((reason) => `${dayWords(point.date)} ${APART[reason]}`),
    ),
  );
  return [...new Set(found)];
}

function whyNot(line: Line, last: LinePoint): string {
  if (line.mdc95 === null) return "no error figure is known";
  return WORTH[last.validity];
}

/** A value with its day and what it is worth, to be read out. */
export function pointWords(line: Line, point: LinePoint, measure: Compared): string {
  const first = line.points.find((each) => each.validity === "valid");
  const parts = [dayWords(point.date), shown(point.value, measure)];
  parts.push(...point.apart.map((reason) => APART[reason]));
  if (point.validity !== "valid") parts.push(WORTH[point.validity]);
  else if (point === first) parts.push("the first that counts");
  else if (point.beyond === null) parts.push("not compared");
  else parts.push(point.beyond ? "beyond error of the first" : "within error of the first");
  return parts.join(", ");
}

/** What moved beyond error on a side, in words, and how many measures did not. */
export function movedOn(pairs: readonly Pair[], side: Side | "none") {
  const here = pairs.flatMap((pair) => {
    const line = pair.lines[side];
    return line && line.points.length > 1 ? [{ pair, line }] : [];
  });
  const changed = here.filter(({ line }) => line.verdict === "changed");
  return {
    changed,
    still: here.filter(({ line }) => line.verdict === "within_error").length,
    apart: here.filter(({ line }) => line.verdict === "not_comparable").length,
  };
}
