// Figures as plain geometry, in degrees and the units of a 320 × 150 sheet. Drawn for the left
// lane, outwards to the left; the right lane mirrors the sheet.
export interface Point {
  x: number;
  y: number;
}

export type Shape =
  | { kind: "limb"; from: Point; to: Point; width: number; tone: "body" | "behind" }
  | { kind: "line"; from: Point; to: Point; tone: "couch" | "level" | "arm" }
  | { kind: "sector"; at: Point; radius: number; from: number; to: number }
  | { kind: "arc"; at: Point; radius: number; from: number; to: number }
  | { kind: "head"; at: Point; radius: number }
  | { kind: "axis"; at: Point }
  | { kind: "hand"; at: Point };

export type Joints = Readonly<Record<string, number | null>>;
export type Usual = Readonly<Record<string, readonly [number, number] | null>>;

export const SHEET = { width: 320, height: 150 };

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** A point `length` away, `angle` degrees below the leftward horizontal. */
export function away(from: Point, length: number, angle: number): Point {
  return {
    x: from.x - length * Math.cos(radians(angle)),
    y: from.y + length * Math.sin(radians(angle)),
  };
}

/** The path of an arc or sector; angles in degrees below the leftward horizontal. */
export function arcPath(at: Point, radius: number, from: number, to: number): string {
  const start = away(at, radius, from);
  const end = away(at, radius, to);
  const large = Math.abs(to - from) > 180 ? 1 : 0;
  const sweep = to > from ? 0 : 1;
  return `M ${start.x} ${start.y} A ${radius} ${radius} 0 ${large} ${sweep} ${end.x} ${end.y}`;
}

export const sectorPath = (at: Point, radius: number, from: number, to: number): string =>
  `${arcPath(at, radius, from, to)} L ${at.x} ${at.y} Z`;
