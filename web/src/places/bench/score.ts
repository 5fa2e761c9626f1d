// Points added up while they are answered: what stands, what is open, where it can still end.
import type { Measure, Test } from "../../api/catalogue";
import type { Json } from "../../state/domain/fields";
import { shownNumber } from "../../state/domain/parse";

type Score = NonNullable<Test["score"]>;
type Item = Score["items"][number];

export interface Scored {
  total: number;
  open: number;
  lowest: number;
  highest: number;
}

/** As the core adds it up: unknown adds nothing, and widens where it can end. */
export function scored(
  score: Score,
  measures: readonly Measure[],
  value: (measure: string) => Json,
): Scored {
  const sum: Scored = { total: 0, open: 0, lowest: 0, highest: 0 };
  for (const item of score.items) {
    const found = value(item.measure);
    const [low, high] = found === null ? endsOf(item, measures) : both(pointsOf(item, found));
    sum.open += found === null ? 1 : 0;
    sum.total += found === null ? 0 : low;
    sum.lowest += low;
    sum.highest += high;
  }
  return sum;
}

const both = (points: number): [number, number] => [points, points];

function pointsOf(item: Item, found: Json): number {
  if (typeof found === "boolean") return found ? (item.points ?? 0) : 0;
  const number = shownNumber(found, "mean");
  if (number === null) return 0;
  if (item.at_least === null) return number;
  return number >= item.at_least ? (item.points ?? 0) : 0;
}

function endsOf(item: Item, measures: readonly Measure[]): [number, number] {
  if (item.points !== null) return [Math.min(0, item.points), Math.max(0, item.points)];
  const [low, high] = measures.find(({ code }) => code === item.measure)?.plausible ?? [0, 0];
  return [Number(low), Number(high)];
}

/** Which of a grade's points were given, kept on the device until all are answered. */
export type Ticks = readonly (boolean | null)[];

export const ticksOf = (text: string | null, count: number): Ticks =>
  Array.from({ length: count }, (_, index) => {
    const letter = text?.[index];
    return letter === "y" ? true : letter === "n" ? false : null;
  });

export const ticksText = (ticks: Ticks): string =>
  ticks.map((tick) => (tick === null ? "-" : tick ? "y" : "n")).join("");

/** The grade, once every point is answered: an open point is no no. */
export const gradeOf = (ticks: Ticks): number | null =>
  ticks.includes(null) ? null : ticks.filter((tick) => tick === true).length;
