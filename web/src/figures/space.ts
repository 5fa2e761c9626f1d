// Points and frames in space. A frame is an origin and three axes; mirrored ones are allowed, so
// that a right limb is posed by the same numbers as a left one.
export type Vec = readonly [number, number, number];

export interface Frame {
  at: Vec;
  x: Vec;
  y: Vec;
  z: Vec;
}

export const add = (a: Vec, b: Vec): Vec => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const minus = (a: Vec, b: Vec): Vec => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const times = (a: Vec, k: number): Vec => [a[0] * k, a[1] * k, a[2] * k];
export const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vec, b: Vec): Vec => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const length = (a: Vec): number => Math.sqrt(dot(a, a));
export const unit = (a: Vec): Vec => times(a, 1 / (length(a) || 1));

export const radians = (degrees: number): number => (degrees * Math.PI) / 180;
export const degrees = (radians: number): number => (radians * 180) / Math.PI;

/** A direction of the frame, in the room. */
export const heading = (frame: Frame, [x, y, z]: Vec): Vec => [
  frame.x[0] * x + frame.y[0] * y + frame.z[0] * z,
  frame.x[1] * x + frame.y[1] * y + frame.z[1] * z,
  frame.x[2] * x + frame.y[2] * y + frame.z[2] * z,
];

/** A point of the frame, in the room. */
export const point = (frame: Frame, at: Vec): Vec => add(frame.at, heading(frame, at));

/** A point of the room, in the frame. */
export function within(frame: Frame, at: Vec): Vec {
  const away = minus(at, frame.at);
  return [dot(frame.x, away), dot(frame.y, away), dot(frame.z, away)];
}

type Axis = "x" | "y" | "z";
const NEXT: Record<Axis, [Axis, Axis]> = { x: ["y", "z"], y: ["z", "x"], z: ["x", "y"] };

/** The frame turned about one of its own axes, by the right-hand rule of a frame that is not mirrored. */
export function turned(frame: Frame, axis: Axis, by: number): Frame {
  if (by === 0) return frame;
  const [one, two] = NEXT[axis];
  const c = Math.cos(radians(by));
  const s = Math.sin(radians(by));
  return {
    ...frame,
    [one]: add(times(frame[one], c), times(frame[two], s)),
    [two]: add(times(frame[two], c), times(frame[one], -s)),
  };
}

export const moved = (frame: Frame, by: Vec): Frame => ({ ...frame, at: point(frame, by) });
export const mirrored = (frame: Frame): Frame => ({ ...frame, y: times(frame.y, -1) });

/** A point turned about a line through `about`. */
export function swung(at: Vec, about: Vec, axis: Vec, by: number): Vec {
  const k = unit(axis);
  const v = minus(at, about);
  const c = Math.cos(radians(by));
  const s = Math.sin(radians(by));
  const along = times(k, dot(k, v) * (1 - c));
  return add(about, add(add(times(v, c), times(cross(k, v), s)), along));
}

/** The frame `frame` would be, were `from` laid where `to` is. */
export function carried(frame: Frame, from: Frame, to: Frame): Frame {
  const lay = (direction: Vec) =>
    heading(to, [dot(from.x, direction), dot(from.y, direction), dot(from.z, direction)]);
  return {
    at: point(to, within(from, frame.at)),
    x: lay(frame.x),
    y: lay(frame.y),
    z: lay(frame.z),
  };
}
