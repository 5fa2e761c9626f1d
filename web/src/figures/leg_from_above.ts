// Lying, seen from above, the feet at the bottom; and the shank from the foot end.
import { away, type Joints, type Point, type Shape, type Usual } from "./geometry";

const HIP: Point = { x: 128, y: 34 };
const THIGH = 92;
const STRAIGHT_DOWN = 90;

function pelvis(): Shape[] {
  return [
    { kind: "limb", from: { x: 112, y: 22 }, to: { x: 204, y: 22 }, width: 22, tone: "body" },
    { kind: "limb", from: { x: 190, y: 34 }, to: { x: 190, y: 108 }, width: 17, tone: "behind" },
  ];
}

/** `turn` outwards in degrees, from straight down. */
function thigh(
  turn: number,
  label: number | null,
  range: readonly [number, number] | null,
): Shape[] {
  const shapes: Shape[] = [];
  const end = away(HIP, THIGH, STRAIGHT_DOWN - turn);
  shapes.push({ kind: "limb", from: HIP, to: end, width: 17, tone: "body" });
  if (range) {
    const [low, high] = range;
    shapes.push({
      kind: "sector",
      at: HIP,
      radius: 106,
      from: STRAIGHT_DOWN - high,
      to: STRAIGHT_DOWN - low,
    });
  }
  shapes.push({ kind: "line", from: HIP, to: away(HIP, 112, STRAIGHT_DOWN), tone: "level" });
  if (label !== null) {
    shapes.push({ kind: "line", from: HIP, to: away(HIP, 108, STRAIGHT_DOWN - turn), tone: "arm" });
    shapes.push({
      kind: "arc",
      at: HIP,
      radius: 84,
      from: STRAIGHT_DOWN,
      to: STRAIGHT_DOWN - turn,
    });
  }
  shapes.push({ kind: "axis", at: HIP });
  return shapes;
}

const KNEE: Point = { x: 268, y: 30 };
const SHANK = 92;

/** External rotation swings the foot inwards: towards the spine, away from the lane's edge. */
function shank(joints: Joints, usual: Usual): Shape[] {
  const turn = joints.rotation ?? 0;
  const foot = away(KNEE, SHANK, STRAIGHT_DOWN + turn);
  const shapes: Shape[] = [
    { kind: "limb", from: { x: 268, y: 24 }, to: { x: 268, y: 31 }, width: 24, tone: "body" },
    { kind: "limb", from: KNEE, to: foot, width: 13, tone: "body" },
  ];
  const range = usual.rotation;
  if (range) {
    shapes.push({
      kind: "sector",
      at: KNEE,
      radius: 100,
      from: STRAIGHT_DOWN + range[0],
      to: STRAIGHT_DOWN + range[1],
    });
  }
  shapes.push({ kind: "line", from: KNEE, to: away(KNEE, 110, STRAIGHT_DOWN), tone: "level" });
  if (joints.rotation !== null && joints.rotation !== undefined) {
    const end = STRAIGHT_DOWN + joints.rotation;
    shapes.push({ kind: "line", from: KNEE, to: away(KNEE, 104, end), tone: "arm" });
    shapes.push({ kind: "arc", at: KNEE, radius: 80, from: STRAIGHT_DOWN, to: end });
  }
  shapes.push({ kind: "axis", at: KNEE });
  return shapes;
}

export function hangingLegFront(joints: Joints, usual: Usual): Shape[] {
  const out = joints.abduction ?? null;
  const drift = thigh(out ?? 0, out, usual.abduction ?? null);
  return [...pelvis(), ...drift, ...shank(joints, usual)];
}

export function thighAcross(joints: Joints, usual: Usual): Shape[] {
  const across = joints.adduction ?? null;
  const range = usual.adduction;
  const outwards = range ? ([-range[1], -range[0]] as const) : null;
  return [...pelvis(), ...thigh(-(across ?? 0), across, outwards)];
}
