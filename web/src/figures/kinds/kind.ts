import type { Limb, Pose } from "../body";
import type { View } from "../camera";
import type { BoneName } from "../skeleton/bones";
import type { Landmark, Ligament } from "../skeleton/landmarks";
import type { Place } from "../skeleton/shape";
import type { Vec } from "../space";

/** The numbers a figure is posed by: what was read, else its example. */
export type Numbers = Readonly<Record<string, number>>;

/** Which parts are drawn: all, both legs with the pelvis, the tested leg, from the knee down, both so. */
export type Shows = "all" | "legs" | "leg" | "lower" | "lowers";

export type Box = readonly [Vec, Vec];

export interface Panel {
  view: View;
  scale: number;
  /** What is held where on the sheet. */
  hold: readonly [Landmark | Place, number, number];
  limb?: Limb;
  shows?: Shows;
  bones?: readonly BoneName[];
  bonesOf?: "tested" | "both";
  ligaments?: readonly Ligament[];
  /** Another pose than the figure's own. */
  pose?: (numbers: Numbers) => Pose;
  /** Paler: where the movement begins or goes. */
  ghosts?: readonly ((numbers: Numbers) => Pose)[];
  /** Couch, floor, step, wall. */
  boxes?: readonly Box[] | ((numbers: Numbers) => readonly Box[]);
  /** Left and right end on the sheet, where there are several. */
  window?: readonly [number, number];
}

/** A direction of a frame, seen on the sheet. */
export interface Towards {
  way: Place;
}

export interface AngleRead {
  of: "angle";
  axis: Landmark | Place;
  /** Where the angle is zero. */
  zero: Place;
  moving: Landmark | Towards;
  movingLimb?: Limb;
  /** +1: grows clockwise in the left lane. */
  turn: 1 | -1;
  panel?: number;
  /** How long the arms are drawn, on the sheet. */
  reach?: number;
}

export interface LengthRead {
  of: "length";
  from: Landmark | Place | "below";
  to: Landmark | Place;
  panel?: number;
  /** Laid level, this high over the floor. */
  level?: number;
}

export type Read = AngleRead | LengthRead;

export interface Kind {
  example: Numbers;
  pose: (numbers: Numbers) => Pose;
  panels: readonly Panel[];
  reads?: Readonly<Record<string, Read>>;
}

/** A number that is posed by, or what it is where nothing was read. */
export const number = (numbers: Numbers, code: string, without = 0): number =>
  numbers[code] ?? without;
