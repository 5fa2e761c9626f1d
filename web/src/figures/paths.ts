// Small SVG paths of what lies on a figure.
import type { Point } from "./camera";
import { away } from "./reads";

interface Arc {
  at: Point;
  radius: number;
  from: number;
  to: number;
}

export function arcPath({ at, radius, from, to }: Arc): string {
  const start = away(at, radius, from);
  const end = away(at, radius, to);
  const large = Math.abs(to - from) > 180 ? 1 : 0;
  const sweep = to > from ? 1 : 0;
  return `M${start.x} ${start.y}A${radius} ${radius} 0 ${large} ${sweep} ${end.x} ${end.y}`;
}

export const sectorPath = (arc: Arc): string => `${arcPath(arc)}L${arc.at.x} ${arc.at.y}Z`;

/** A head at the last point of a line. */
export function arrowHead(line: readonly Point[]): string {
  const tip = line.at(-1);
  const before = line.at(-2);
  if (!tip || !before) return "";
  const angle = (Math.atan2(tip.y - before.y, tip.x - before.x) * 180) / Math.PI;
  const end = away(tip, 5, angle);
  const one = away(end, 11, angle + 154);
  const two = away(end, 11, angle - 154);
  return `M${end.x} ${end.y}L${one.x} ${one.y}L${two.x} ${two.y}Z`;
}

/** A star of eight rays, for a tap. */
export function starPath(at: Point, radius: number): string {
  const corners = Array.from({ length: 16 }, (_, i) =>
    away(at, i % 2 ? radius * 0.42 : radius * 1.1, i * 22.5),
  );
  return `M${corners.map(({ x, y }) => `${x} ${y}`).join("L")}Z`;
}
