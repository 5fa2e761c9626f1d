/** The frames of a body. Limbs have one a side; the rest one. */
export type LimbFrame =
  | "thigh"
  | "shank"
  | "foot"
  | "forefoot"
  | "toes"
  | "upper_arm"
  | "forearm"
  | "hand";
export type FrameName = LimbFrame | "pelvis" | "thorax" | "head";

/** A point of a frame: forwards, outwards, up the bone. `room` is the room itself. */
export type Place = readonly [FrameName | "room", number, number, number];

/** An ellipsoid: its middle, then its radii along the same axes. */
export type Node = readonly [number, number, number, number, number, number];

export interface Part {
  frame: FrameName;
  nodes: readonly Node[];
  /** Which two nodes are joined by their common outline. */
  links: readonly (readonly [number, number])[];
}

/** Segment lengths in thousandths of body height (Drillis and Contini 1966). */
export const LENGTHS = {
  thigh: 245,
  shank: 246,
  hipFromMiddle: 50,
  shoulderFromMiddle: 111,
  pelvisToLumbar: 78,
  lumbarToShoulder: 210,
  lumbarToHead: 262,
  upperArm: 172,
  forearm: 150,
  soleBelowAnkle: 39,
} as const;

/** A body of 1750 mm. */
export const MM_PER_UNIT = 1.75;
