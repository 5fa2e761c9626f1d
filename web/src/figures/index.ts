import type { Schema } from "../api/client";
import type { Joints, Point, Shape, Usual } from "./geometry";
import { HAND_PLACES, hangingLeg, hangingLegStraight } from "./hanging_leg";
import { hangingLegFront, thighAcross } from "./leg_from_above";

export type Draw = (joints: Joints, usual: Usual) => Shape[];

/** The drawings the catalogue may name: one that is missing here does not compile. */
export type FigureKind = Schema["Figure"]["kind"];

export const FIGURES: Record<FigureKind, Draw> = {
  hanging_leg: hangingLeg,
  hanging_leg_straight: hangingLegStraight,
  hanging_leg_front: hangingLegFront,
  thigh_across: thighAcross,
};

const ACROSS_HANDS: Record<string, Point> = { pelvis: { x: 190, y: 20 }, knee: { x: 128, y: 118 } };

/** Where the examiner's hands go, in the same sheet. */
export const HANDS: Record<FigureKind, Record<string, Point>> = {
  hanging_leg: HAND_PLACES,
  hanging_leg_straight: HAND_PLACES,
  hanging_leg_front: {},
  thigh_across: ACROSS_HANDS,
};
