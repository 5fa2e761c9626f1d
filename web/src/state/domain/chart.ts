// Change lines as geometry: one time axis and one scale for both lanes, a band of error around the first value.
import { scaleLinear, scaleTime } from "d3-scale";
import { line as pathOf } from "d3-shape";
import type { Compared } from "../../api/catalogue";
import type { Line, LinePoint } from "../../api/course";
import { linesOf, type Pair } from "./course";

export interface Size {
  width: number;
  height: number;
}

export interface Spot {
  x: number;
  y: number;
  point: LinePoint;
}

export interface LaneChart {
  /** Stretches that may be joined: what does not count breaks them, and what is apart from the one before. */
  stretches: string[];
  spots: Spot[];
  band: { y: number; height: number } | null;
  /** The other side, to compare with. */
  ghost: string;
}

export interface Scales {
  x: (day: string) => number;
  y: (value: number) => number;
  ticks: number[];
}

const PAD_X = 28;
const PAD_Y = 22;
const TICKS = 3;

/** Both lanes share them, so that a height means the same on both sides. */
export function scalesOf(pair: Pair, days: readonly [string, string], size: Size): Scales {
  const lines = linesOf(pair);
  const values = lines.flatMap((line) => [
    ...line.points.map((point) => point.value),
    ...(line.first !== null && line.mdc95 !== null
      ? [line.first - line.mdc95, line.first + line.mdc95]
      : []),
  ]);
  const usual = usualOf(pair.measure);
  const around = usual ? [...values, ...usual.filter((end) => near(end, values))] : values;
  const y = scaleLinear()
    .domain([Math.min(...around), Math.max(...around)])
    .nice(TICKS)
    .range([size.height - PAD_Y, PAD_Y]);
  const x = scaleTime()
    .domain([at(days[0]), at(days[1])])
    .range([PAD_X, Math.max(size.width - PAD_X, PAD_X + 1)]);
  return { x: (day) => x(at(day)), y: (value) => y(value), ticks: y.ticks(TICKS) };
}

const at = (day: string): Date => new Date(`${day.slice(0, 10)}T00:00:00Z`);

/** An end of what is usual that lies far off would flatten the line: it is not drawn towards. */
function near(end: number, values: readonly number[]): boolean {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const reach = Math.max(high - low, 1);
  return end >= low - reach && end <= high + reach;
}

export function usualOf(measure: Compared): readonly [number, number] | null {
  const [low, high] = measure.usual ?? [];
  return low !== undefined && high !== undefined ? [low, high] : null;
}

export function laneChart(
  line: Line | undefined,
  other: Line | undefined,
  scales: Scales,
): LaneChart {
  const spots = (line?.points ?? []).map((point) => spotOf(point, scales));
  return {
    stretches: stretchesOf(spots).map((stretch) => joined(stretch)),
    spots,
    band: bandOf(line, scales),
    ghost: joined(
      (other?.points ?? [])
        .filter((point) => point.validity === "valid")
        .map((point) => spotOf(point, scales)),
    ),
  };
}

const spotOf = (point: LinePoint, { x, y }: Scales): Spot => ({
  x: x(point.date),
  y: y(point.value),
  point,
});

const joined = (spots: readonly Spot[]): string =>
  spots.length < 2
    ? ""
    : (pathOf<Spot>()
        .x((spot) => Math.round(spot.x * 10) / 10)
        .y((spot) => Math.round(spot.y * 10) / 10)([...spots]) ?? "");

function stretchesOf(spots: readonly Spot[]): Spot[][] {
  const stretches: Spot[][] = [];
  let last: Spot | null = null;
  for (const spot of spots) {
    if (spot.point.validity !== "valid") {
      last = null;
      continue;
    }
    const now = stretches.at(-1);
    if (now && last && spot.point.apart.length === 0) now.push(spot);
    else stretches.push([spot]);
    last = spot;
  }
  return stretches;
}

function bandOf(line: Line | undefined, { y }: Scales) {
  if (!line || line.first === null || line.mdc95 === null) return null;
  const top = y(line.first + line.mdc95);
  return { y: top, height: y(line.first - line.mdc95) - top };
}
