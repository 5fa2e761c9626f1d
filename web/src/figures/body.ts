// A pose in joint angles becomes frames in the room. Signs: flexion forwards, abduction outwards,
// rotation external, knee flexion, dorsiflexion, inversion: all plus.
import { LANDMARKS, type Landmark } from "./skeleton/landmarks";
import { type FrameName, LENGTHS, type Place } from "./skeleton/shape";
import {
  add,
  carried,
  cross,
  degrees,
  dot,
  type Frame,
  heading,
  length,
  minus,
  mirrored,
  moved,
  point,
  radians,
  times,
  turned,
  unit,
  type Vec,
} from "./space";

export type Limb = "tested" | "other";
export type Position = "supine" | "prone" | "side_lying" | "upright";

export interface Leg {
  flexion?: number;
  abduction?: number;
  rotation?: number;
  knee?: number;
  dorsiflexion?: number;
  toeOut?: number;
  inversion?: number;
  /** Foot against shank: forwards, outwards, up. */
  slide?: Vec;
  /** The heel turns, the forefoot stays flat. */
  heelInversion?: number;
  forefootInversion?: number;
  forefootLift?: number;
  toes?: number;
  /** How far the arch is raised between heel and heads that stay down, in units. */
  arch?: number;
  /** Longer by this much, in units: where one leg's bone is longer than the other's. */
  longerThigh?: number;
  longerShank?: number;
}

export interface Arm {
  flexion?: number;
  abduction?: number;
  elbow?: number;
  /** The hand goes here instead. */
  reach?: { at: Landmark | Place; limb?: Limb };
}

export interface Pose {
  position: Position;
  tested?: Leg;
  other?: Leg;
  tilt?: number;
  list?: number;
  spineFlexion?: number;
  lean?: number;
  arms?: { tested?: Arm; other?: Arm };
  /** The foot that stands flat on the floor; the body follows from it. */
  stands?: Limb;
  /** Or stands on its toes, which stay flat. */
  standsOn?: "foot" | "toes";
  /** Where the foot stands; where none does, how far the whole is moved. */
  from?: Vec;
}

export type Body = Readonly<Record<Limb, Readonly<Record<FrameName, Frame>>>> & { facing: Frame };

const ROOM: Record<Position, Frame> = {
  supine: { at: [0, 0, 58], x: [0, 0, 1], y: [0, -1, 0], z: [1, 0, 0] },
  prone: { at: [0, 0, 56], x: [0, 0, -1], y: [0, -1, 0], z: [-1, 0, 0] },
  side_lying: { at: [0, 0, 82], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] },
  upright: { at: [0, 0, 52], x: [-1, 0, 0], y: [0, -1, 0], z: [0, 0, 1] },
};

export function bodyOf(pose: Pose): Body {
  const facing = facingOf(pose);
  return { ...limbs(pose, facing), facing };
}

/** Where a place of the tested leg is, without posing the rest of the body: what is solved for asks often. */
export function legPlace(pose: Pose, at: Landmark): Vec {
  const pelvis = pelvisOf(pose, facingOf(pose));
  return placeIn({ pelvis, ...legOf(pelvis, pose.tested ?? {}) }, at);
}

/** Which way the body faces and where it is: as its position has it, or as the standing foot has it. */
function facingOf(pose: Pose): Frame {
  const room = ROOM[pose.position];
  if (!pose.stands) return { ...room, at: add(room.at, pose.from ?? [0, 0, 0]) };
  const leg = pose[pose.stands] ?? {};
  const pelvis = pelvisOf(pose, room);
  const legs = legOf(pose.stands === "other" ? mirrored(pelvis) : pelvis, leg);
  const foot = legs[pose.standsOn === "toes" ? "toes" : "foot"];
  const below = pose.standsOn === "toes" ? TOES_ABOVE_FLOOR : LENGTHS.soleBelowAnkle;
  const { hindfoot } = archOf(leg);
  const ground = { ...room, at: pose.from ?? ([0, 0, 0] as const) };
  const heel = turned(moved(ground, [HEEL_UNDER[0], 0, 0]), "y", -hindfoot);
  const flat = moved(heel, [-HEEL_UNDER[0], 0, below]);
  return carried(room, foot, pose.stands === "other" ? mirrored(flat) : flat);
}

const pelvisOf = (pose: Pose, facing: Frame): Frame =>
  turned(turned(facing, "x", pose.list ?? 0), "y", pose.tilt ?? 0);

const TOES_ABOVE_FLOOR = 11;
const [, ...HEEL_UNDER] = LANDMARKS.heel_under;

/** How the halves of the foot pitch to raise the arch while heel and heads stay where they are. */
export function archOf(leg: Leg): { hindfoot: number; forefoot: number } {
  const rise = leg.arch ?? 0;
  const pitch = (over: number) => degrees(Math.asin(Math.max(-0.8, Math.min(0.8, rise / over))));
  return {
    hindfoot: pitch(MIDFOOT[0] - HEEL_UNDER[0]),
    forefoot: pitch(HEADS[0] - MIDFOOT[0]),
  };
}

function limbs(pose: Pose, facing: Frame): Omit<Body, "facing"> {
  const pelvis = pelvisOf(pose, facing);
  const waist = moved(pelvis, [0, 0, LENGTHS.pelvisToLumbar]);
  const thorax = turned(turned(waist, "y", pose.spineFlexion ?? 0), "x", pose.lean ?? 0);
  const head = moved(thorax, [0, 0, LENGTHS.lumbarToHead]);
  const trunk = { pelvis, thorax, head };
  const left = { ...trunk, ...legOf(pelvis, pose.tested ?? {}) };
  const right = { ...mirroredTrunk(trunk), ...legOf(mirrored(pelvis), pose.other ?? {}) };
  const goal = (arm: Arm | undefined): Vec | null => {
    if (!arm?.reach) return null;
    return placeIn(arm.reach.limb === "other" ? right : left, arm.reach.at);
  };
  const { tested, other } = pose.arms ?? {};
  return {
    tested: { ...left, ...armOf(thorax, tested ?? {}, goal(tested)) },
    other: { ...right, ...armOf(mirrored(thorax), other ?? {}, goal(other)) },
  };
}

const mirroredTrunk = (trunk: Record<"pelvis" | "thorax" | "head", Frame>) => ({
  pelvis: mirrored(trunk.pelvis),
  thorax: mirrored(trunk.thorax),
  head: mirrored(trunk.head),
});

type LegFrames = Record<"thigh" | "shank" | "foot" | "forefoot" | "toes", Frame>;

// Where the forefoot twists and lifts, and where its heads stand, in the foot's frame.
const MIDFOOT: Vec = [44, 0, -18];
const HEADS: Vec = [80, 0, -28];

function legOf(pelvis: Frame, leg: Leg): LegFrames {
  const hip = moved(pelvis, [0, LENGTHS.hipFromMiddle, 0]);
  const lifted = turned(turned(hip, "y", -(leg.flexion ?? 0)), "x", leg.abduction ?? 0);
  const thigh = turned(lifted, "z", leg.rotation ?? 0);
  const knee = moved(thigh, [0, 0, -LENGTHS.thigh - (leg.longerThigh ?? 0)]);
  const shank = turned(knee, "y", leg.knee ?? 0);
  const ankle = moved(shank, [0, 0, -LENGTHS.shank - (leg.longerShank ?? 0)]);
  const slid = moved(ankle, leg.slide ?? [0, 0, 0]);
  const { hindfoot, forefoot: front } = archOf(leg);
  const pitch = -(leg.dorsiflexion ?? 0) - hindfoot;
  const swung = turned(turned(slid, "z", leg.toeOut ?? 0), "y", pitch);
  const whole = turned(swung, "x", -(leg.inversion ?? 0));
  const foot = turned(whole, "x", -(leg.heelInversion ?? 0));
  const lift = hindfoot + front - (leg.forefootLift ?? 0);
  const midfoot = turned(moved(whole, MIDFOOT), "y", lift);
  const twisted = turned(midfoot, "x", -(leg.forefootInversion ?? 0));
  const forefoot = moved(twisted, minus(HEADS, MIDFOOT));
  const toes = turned(forefoot, "y", -(leg.toes ?? 0) - front);
  return { thigh, shank, foot, forefoot, toes };
}

type ArmFrames = Record<"upper_arm" | "forearm" | "hand", Frame>;

function armOf(thorax: Frame, arm: Arm, goal: Vec | null): ArmFrames {
  const shoulder = moved(thorax, [
    -4,
    LENGTHS.shoulderFromMiddle - 8,
    LENGTHS.lumbarToShoulder - 6,
  ]);
  const raised = turned(turned(shoulder, "y", -(arm.flexion ?? 0)), "x", arm.abduction ?? 6);
  const upper_arm = goal ? towards(shoulder, goal) : raised;
  const elbow = moved(upper_arm, [0, 0, -LENGTHS.upperArm]);
  const forearm = goal ? aimed(elbow, goal) : turned(elbow, "y", -(arm.elbow ?? 8));
  return { upper_arm, forearm, hand: moved(forearm, [0, 0, -LENGTHS.forearm]) };
}

/** The upper arm of an arm of two bones that ends at the goal, the elbow falling back and out. */
function towards(shoulder: Frame, goal: Vec): Frame {
  const reach = LENGTHS.forearm + HALF_A_HAND;
  const way = minus(goal, shoulder.at);
  const far = Math.min(length(way), (LENGTHS.upperArm + reach) * 0.999);
  const part = (far * far + LENGTHS.upperArm ** 2 - reach ** 2) / (2 * far);
  const off = Math.sqrt(Math.max(0, LENGTHS.upperArm ** 2 - part * part));
  const along = unit(way);
  const hint = heading(shoulder, [-0.5, 0.7, -0.5]);
  const side = unit(cross(cross(along, hint), along));
  return aimed(shoulder, add(shoulder.at, add(times(along, part), times(side, off))));
}

const HALF_A_HAND = 40;

/** The frame turned so that its bone points at the goal. */
function aimed(frame: Frame, goal: Vec): Frame {
  const z = unit(minus(frame.at, goal));
  const y = unit(cross(z, Math.abs(z[2]) > 0.9 ? frame.x : [0, 0, 1]));
  return { at: frame.at, x: cross(y, z), y, z };
}

const placeIn = (frames: Partial<Record<FrameName, Frame>>, at: Landmark | Place): Vec => {
  const [name, x, y, z] = typeof at === "string" ? LANDMARKS[at] : at;
  const frame = name === "room" ? undefined : frames[name];
  return frame ? point(frame, [x, y, z]) : [x, y, z];
};

/** Where a landmark or a place of a frame is, in the room. */
export const placeOf = (body: Body, at: Landmark | Place, limb: Limb = "tested"): Vec =>
  placeIn(body[limb], at);

/** Which way a direction of a frame points, in the room. */
export function wayOf(body: Body, [name, x, y, z]: Place, limb: Limb = "tested"): Vec {
  return name === "room" ? [x, y, z] : heading(body[limb][name], [x, y, z]);
}

/**
 * The tested leg whose knee is where thigh and shank meet when the ankle lies at `ankle`, turned by
 * `fall` degrees from straight up towards outwards. Points in the frame of the left hip.
 */
export function legBetween(ankle: Vec, fall: number): Leg {
  const far = length(ankle);
  const along = unit(ankle);
  const part = (far * far + LENGTHS.thigh ** 2 - LENGTHS.shank ** 2) / (2 * far);
  const off = Math.sqrt(Math.max(0, LENGTHS.thigh ** 2 - part * part));
  const out = unit(cross(along, [-1, 0, 0]));
  const up = cross(out, along);
  const turn = radians(fall);
  const side = add(times(up, Math.cos(turn)), times(out, Math.sin(turn)));
  const knee = add(times(along, part), times(side, off));
  return anglesOf(unit(knee), unit(minus(ankle, knee)));
}

/** The joint angles of a leg whose thigh and shank point these ways, in the frame of the left hip. */
function anglesOf(thigh: Vec, shank: Vec): Leg {
  const abduction = degrees(Math.asin(thigh[1]));
  const flexion = degrees(Math.atan2(thigh[0], -thigh[2]));
  const still: Frame = { at: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };
  const lifted = turned(turned(still, "y", -flexion), "x", abduction);
  const [x, y, z] = [dot(lifted.x, shank), dot(lifted.y, shank), dot(lifted.z, shank)];
  const knee = degrees(Math.acos(Math.max(-1, Math.min(1, -z))));
  return { flexion, abduction, knee, rotation: degrees(Math.atan2(-y, -x)) };
}

// Down to a few thousandths of a degree: finer than a line is drawn.
const HALVINGS = 15;

/** The number between two ends for which `height` is met; `height` must grow or fall all the way. */
export function solved(
  low: number,
  high: number,
  height: number,
  at: (x: number) => number,
): number {
  const grows = at(high) > at(low);
  let [from, to] = [low, high];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (from + to) / 2;
    if (at(middle) < height === grows) from = middle;
    else to = middle;
  }
  return (from + to) / 2;
}
