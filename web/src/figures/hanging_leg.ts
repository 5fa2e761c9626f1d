// Lying at the couch end, seen from the side: the thigh hangs, the other is hugged.
import { away, type Joints, type Point, type Shape, type Usual } from "./geometry";

const HIP: Point = { x: 158, y: 62 };
const KNEE_AT_REST = 80;
const THIGH = 74;
const SHANK = 62;
const FOOT = 16;
const COUCH_TOP = 76;

/** Thigh above level is positive, so it turns upwards: against the sheet's downward angles. */
const thighTurn = (joints: Joints): number => -(joints.thigh ?? 0);

export const kneePoint = (joints: Joints): Point => away(HIP, THIGH, thighTurn(joints));

function lying(): Shape[] {
  const hugged = away(HIP, 52, -104);
  return [
    { kind: "line", from: { x: 150, y: COUCH_TOP }, to: { x: 312, y: COUCH_TOP }, tone: "couch" },
    { kind: "line", from: { x: 172, y: COUCH_TOP }, to: { x: 172, y: 142 }, tone: "couch" },
    { kind: "line", from: { x: 296, y: COUCH_TOP }, to: { x: 296, y: 142 }, tone: "couch" },
    { kind: "limb", from: HIP, to: hugged, width: 15, tone: "behind" },
    { kind: "limb", from: hugged, to: away(hugged, 46, 34), width: 12, tone: "behind" },
    { kind: "limb", from: HIP, to: { x: 262, y: 62 }, width: 22, tone: "body" },
    { kind: "head", at: { x: 288, y: 60 }, radius: 11 },
  ];
}

function leg(thigh: number, knee: number): Shape[] {
  const kneeAt = away(HIP, THIGH, thigh);
  const ankle = away(kneeAt, SHANK, thigh + knee);
  return [
    { kind: "limb", from: HIP, to: kneeAt, width: 17, tone: "body" },
    { kind: "limb", from: kneeAt, to: ankle, width: 12, tone: "body" },
    { kind: "limb", from: ankle, to: away(ankle, FOOT, thigh + knee - 80), width: 8, tone: "body" },
  ];
}

function thighReading(joints: Joints, usual: Usual): Shape[] {
  const range = usual.thigh;
  const shapes: Shape[] = [];
  if (range) {
    shapes.push({ kind: "sector", at: HIP, radius: 96, from: -range[1], to: -range[0] });
  }
  shapes.push({ kind: "line", from: HIP, to: away(HIP, 110, 0), tone: "level" });
  const thigh = joints.thigh;
  if (thigh !== null && thigh !== undefined) {
    shapes.push({ kind: "line", from: HIP, to: away(HIP, 104, -thigh), tone: "arm" });
    shapes.push({ kind: "arc", at: HIP, radius: 46, from: 0, to: -thigh });
  }
  shapes.push({ kind: "axis", at: HIP });
  return shapes;
}

export function hangingLeg(joints: Joints, usual: Usual): Shape[] {
  const thigh = thighTurn(joints);
  const knee = joints.knee ?? KNEE_AT_REST;
  const kneeAt = kneePoint(joints);
  const range = usual.knee;
  const shapes = [...lying(), ...leg(thigh, knee)];
  if (range) {
    shapes.push({
      kind: "sector",
      at: kneeAt,
      radius: 44,
      from: thigh + range[0],
      to: thigh + range[1],
    });
  }
  if (joints.knee !== null && joints.knee !== undefined) {
    shapes.push({ kind: "arc", at: kneeAt, radius: 26, from: thigh, to: thigh + joints.knee });
  }
  shapes.push({ kind: "axis", at: kneeAt });
  return [...shapes, ...thighReading(joints, usual)];
}

export function hangingLegStraight(joints: Joints, usual: Usual): Shape[] {
  return [...lying(), ...leg(thighTurn(joints), 0), ...thighReading(joints, usual)];
}

export const HAND_PLACES: Record<string, Point> = {
  low_back: { x: 196, y: 72 },
  other_knee: { x: 171, y: 10 },
  ankle: { x: 30, y: 62 },
};
