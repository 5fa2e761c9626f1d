// What was measured, drawn: the axis, both arms, the arc, the usual range; or a length with its ends.
import { type Body, placeOf, wayOf } from "./body";
import type { Camera, Point } from "./camera";
import type { AngleRead, LengthRead, Read } from "./kinds/kind";
import { add, degrees, radians, times, type Vec } from "./space";

export type ReadShape =
  | { kind: "sector"; at: Point; radius: number; from: number; to: number }
  | { kind: "level"; from: Point; to: Point }
  | { kind: "arm"; from: Point; to: Point }
  | { kind: "arc"; at: Point; radius: number; from: number; to: number }
  | { kind: "axis"; at: Point }
  // Open: where it is measured, nothing read yet.
  | { kind: "length"; from: Point; to: Point; open: boolean };

export interface Shown {
  /** Null: nothing was read, the limb stands as an example. */
  value: number | null;
  usual: readonly [number, number] | null;
}

const REACH = 92;

const flat = (camera: Camera, at: Vec): Point => {
  const [x, y] = camera.project(at);
  return { x, y };
};

/** Degrees on the sheet, clockwise from the right. */
const angleOf = (from: Point, to: Point): number =>
  degrees(Math.atan2(to.y - from.y, to.x - from.x));

/** A point of the sheet this far away, `angle` degrees clockwise from the right. */
export const away = (from: Point, far: number, angle: number): Point => ({
  x: from.x + far * Math.cos(radians(angle)),
  y: from.y + far * Math.sin(radians(angle)),
});

const wayOnSheet = (camera: Camera, direction: Vec): number => {
  const origin = flat(camera, [0, 0, 0]);
  return angleOf(origin, flat(camera, times(direction, 100)));
};

/** Where the zero arm and the moving arm point, in degrees on the sheet; the latter read from the limb. */
export function armsOf(read: AngleRead, body: Body, camera: Camera) {
  const at = flat(camera, placeOf(body, read.axis));
  const zero = wayOnSheet(camera, wayOf(body, read.zero));
  const limb = read.movingLimb ?? "tested";
  const moving =
    typeof read.moving === "string"
      ? angleOf(at, flat(camera, placeOf(body, read.moving, limb)))
      : wayOnSheet(camera, wayOf(body, read.moving.way, limb));
  return { at, zero, moving };
}

/** The angle as it is drawn, in degrees: what a protractor laid on the picture reads. */
export function drawnAngle(read: AngleRead, body: Body, camera: Camera): number {
  const { zero, moving } = armsOf(read, body, camera);
  const turned = (moving - zero) * read.turn;
  return ((((turned + 180) % 360) + 360) % 360) - 180;
}

export function readShapes(read: Read, shown: Shown, body: Body, camera: Camera): ReadShape[] {
  return read.of === "angle"
    ? angleShapes(read, shown, body, camera)
    : lengthShapes(read, shown, body, camera);
}

function angleShapes(read: AngleRead, shown: Shown, body: Body, camera: Camera): ReadShape[] {
  const { at, zero } = armsOf(read, body, camera);
  const reach = read.reach ?? REACH;
  const shapes: ReadShape[] = [];
  const on = (value: number) => zero + read.turn * value;
  if (shown.usual) {
    const [low, high] = shown.usual;
    shapes.push({ kind: "sector", at, radius: reach, from: on(low), to: on(high) });
  }
  shapes.push({ kind: "level", from: at, to: away(at, reach, zero) });
  if (shown.value !== null) {
    const drawn = on(drawnAngle(read, body, camera));
    shapes.push({ kind: "arm", from: at, to: away(at, reach, drawn) });
    shapes.push({ kind: "arc", at, radius: reach * 0.46, from: zero, to: drawn });
  }
  shapes.push({ kind: "axis", at });
  return shapes;
}

function lengthShapes(read: LengthRead, shown: Shown, body: Body, camera: Camera): ReadShape[] {
  const to = placeOf(body, read.to);
  const from: Vec = read.from === "below" ? [to[0], to[1], 0] : placeOf(body, read.from);
  // Along the floor where it is measured there.
  const level: Vec = read.level ? add(from, [to[0] - from[0], to[1] - from[1], 0]) : to;
  const start: Vec = read.level ? [from[0], from[1], read.level] : from;
  const end: Vec = read.level ? [level[0], level[1], read.level] : to;
  const open = shown.value === null;
  return [{ kind: "length", from: flat(camera, start), to: flat(camera, end), open }];
}
