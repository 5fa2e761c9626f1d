// Lying at the couch end with one leg hanging, the other held.
import type { Leg, Pose } from "../body";
import { VIEWS } from "../camera";
import { COUCH_END } from "./furniture";
import { type AngleRead, type Kind, number } from "./kind";
import { HUG, HUGGING, THIGH_UP } from "./supine";

const hanging = (tested: Leg): Pose => ({
  position: "supine",
  tested,
  other: HUG,
  arms: HUGGING,
});

const HIP_MIDDLE = ["pelvis", 0, 0, 0] as const;
const ACROSS: AngleRead = { ...THIGH_UP, zero: ["room", -1, 0, 0] };

export const COUCH_END_KINDS = {
  hanging_leg: {
    example: { thigh_angle: -8, knee_angle: 96 },
    pose: (n) => hanging({ flexion: number(n, "thigh_angle"), knee: number(n, "knee_angle") }),
    panels: [{ view: VIEWS.side, scale: 0.235, hold: [HIP_MIDDLE, 160, 76], boxes: COUCH_END }],
    reads: {
      thigh_angle: { ...THIGH_UP, reach: 80 },
      knee_angle: {
        of: "angle",
        axis: "knee_centre",
        zero: ["thigh", 0, 0, -1],
        moving: "ankle_centre",
        turn: -1,
        reach: 48,
      },
    },
  },
  hanging_leg_straight: {
    example: { thigh_angle_knee_straight: -6 },
    pose: (n) => hanging({ flexion: number(n, "thigh_angle_knee_straight") }),
    panels: [{ view: VIEWS.side, scale: 0.252, hold: [HIP_MIDDLE, 172, 80], boxes: COUCH_END }],
    reads: { thigh_angle_knee_straight: { ...THIGH_UP, reach: 110 } },
  },
  /** The drift of the thigh from above beside the drift of the shank from the foot end. */
  hanging_drifts: {
    example: { abduction_drift: 3, rotation_drift: 4 },
    pose: (n) =>
      hanging({
        abduction: number(n, "abduction_drift"),
        rotation: number(n, "rotation_drift"),
        knee: 90,
      }),
    panels: [
      {
        view: VIEWS.above,
        scale: 0.32,
        hold: [HIP_MIDDLE, 128, 62],
        boxes: COUCH_END,
        window: [0, 186],
        pose: (n) => hanging({ abduction: number(n, "abduction_drift"), knee: 90 }),
      },
      {
        view: VIEWS.feet,
        scale: 0.3,
        hold: [HIP_MIDDLE, 250, 62],
        boxes: COUCH_END,
        window: [194, 320],
        pose: (n) => hanging({ rotation: number(n, "rotation_drift"), knee: 90 }),
      },
    ],
    reads: {
      abduction_drift: { ...ACROSS, turn: -1 },
      rotation_drift: {
        of: "angle",
        axis: "knee_centre",
        zero: ["room", 0, 0, -1],
        moving: "ankle_centre",
        turn: 1,
        panel: 1,
        reach: 64,
      },
    },
  },
  thigh_across: {
    example: { adduction_available: 18 },
    pose: (n) => hanging({ abduction: -number(n, "adduction_available"), knee: 84 }),
    panels: [{ view: VIEWS.above, scale: 0.36, hold: [HIP_MIDDLE, 176, 72], boxes: COUCH_END }],
    reads: { adduction_available: ACROSS },
  },
} satisfies Record<string, Kind>;
