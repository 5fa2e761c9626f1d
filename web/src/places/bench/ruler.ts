// The ruler between the lanes: both sides grow on one scale, the target across it.

export interface Ruler {
  top: number;
  ticks: number[];
}

const STEPS = [1, 2, 5, 10, 15, 20, 30, 50, 60, 100, 150, 200, 300, 500];
const MOST_TICKS = 5;

/** A scale that holds the target and what both sides reached, in round steps. */
export function rulerFor(target: number | null, reached: readonly (number | null)[]): Ruler {
  const most = Math.max(target ?? 0, ...reached.map((number) => number ?? 0), 1);
  const step = STEPS.find((each) => most / each <= MOST_TICKS) ?? most;
  const count = Math.ceil(most / step);
  return { top: count * step, ticks: Array.from({ length: count + 1 }, (_, i) => i * step) };
}

/** How far up a number stands, 0 to 1. */
export const heightOn = (ruler: Ruler, number: number): number =>
  Math.min(1, Math.max(0, number / ruler.top));
