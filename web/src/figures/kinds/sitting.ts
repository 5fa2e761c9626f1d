// Sitting: the hip from the front, the ankle from the side.
import type { Leg, Pose } from "../body";
import { VIEWS } from "../camera";
import { SEAT } from "./furniture";
import { type AngleRead, type Kind, number } from "./kind";

const LEG: Leg = { flexion: 90, knee: 90 };

/** Sitting upright, the hands on the couch behind. */
export const sitting = (tested: Leg, other: Leg = LEG): Pose => ({
  position: "upright",
  tested: { ...LEG, ...tested },
  other,
  tilt: -8,
  spineFlexion: 6,
  arms: { tested: { flexion: -18, elbow: 14 }, other: { flexion: -18, elbow: 14 } },
});

const HIP_MIDDLE = ["pelvis", 0, 0, 0] as const;

const FOOT_UP: AngleRead = {
  of: "angle",
  axis: "lateral_malleolus",
  zero: ["shank", 1, 0, 0],
  moving: { way: ["foot", 1, 0, 0] },
  turn: 1,
};
const SHANK_IN: AngleRead = {
  of: "angle",
  axis: "knee_centre",
  zero: ["room", 0, 0, -1],
  moving: "ankle_centre",
  turn: 1,
};

export const SITTING = {
  sitting_rotation: {
    example: { external_rotation: 32 },
    pose: (n) =>
      sitting({ rotation: number(n, "external_rotation") - number(n, "internal_rotation") }),
    panels: [{ view: VIEWS.feet, scale: 0.36, hold: [["pelvis", 0, 0, 0], 142, 44], boxes: SEAT }],
    reads: { external_rotation: SHANK_IN, internal_rotation: { ...SHANK_IN, turn: -1 } },
  },
  fulcrum: {
    example: {},
    pose: () => sitting({}),
    panels: [
      { view: VIEWS.side, scale: 0.4, hold: [HIP_MIDDLE, 226, 66], boxes: SEAT, bones: ["femur"] },
    ],
  },
  sitting_flexion: {
    example: {},
    pose: () => sitting({ flexion: 104, knee: 92 }),
    panels: [{ view: VIEWS.side, scale: 0.27, hold: [HIP_MIDDLE, 190, 108], boxes: SEAT }],
  },
  ankle_side: {
    example: { dorsiflexion: 14 },
    pose: (n) => sitting({ dorsiflexion: number(n, "dorsiflexion", -number(n, "plantarflexion")) }),
    panels: [
      {
        view: VIEWS.side,
        scale: 0.42,
        hold: ["ankle_centre", 156, 112],
        boxes: SEAT,
        shows: "leg",
      },
    ],
    reads: { dorsiflexion: FOOT_UP, plantarflexion: { ...FOOT_UP, turn: -1 } },
  },
} satisfies Record<string, Kind>;
