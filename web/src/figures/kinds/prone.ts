// Lying face down, and on the side.
import type { Leg, Pose } from "../body";
import { VIEWS } from "../camera";
import { COUCH, FEET_OFF_PRONE } from "./furniture";
import { type AngleRead, type Kind, number, type Panel } from "./kind";

const prone = (tested: Leg, other: Leg = { dorsiflexion: -50 }): Pose => ({
  position: "prone",
  tested: { dorsiflexion: -40, ...tested },
  other,
});
const onSide = (tested: Leg, other: Leg = { flexion: 48, knee: 70 }): Pose => ({
  position: "side_lying",
  tested,
  other,
  arms: { tested: { flexion: 16, elbow: 30 }, other: { flexion: 60, elbow: 80 } },
});

const HIP_MIDDLE = ["pelvis", 0, 0, 0] as const;

/** The shank against the upright, seen from the foot end. */
const SHANK_OUT: AngleRead = {
  of: "angle",
  axis: "knee_centre",
  zero: ["room", 0, 0, 1],
  moving: "ankle_centre",
  turn: -1,
};
const FROM_FEET: Panel = {
  view: VIEWS.behind,
  scale: 0.4,
  hold: [HIP_MIDDLE, 176, 132],
  boxes: COUCH,
};
const HEEL_LINE: AngleRead = {
  of: "angle",
  axis: "ankle_centre",
  zero: ["shank", 0, 0, -1],
  moving: { way: ["foot", 0, 0, -1] },
  turn: -1,
};

export const PRONE = {
  prone_knee_bend: {
    example: { knee_angle: 118 },
    pose: (n) => prone({ knee: number(n, "knee_angle"), dorsiflexion: 0 }),
    panels: [{ view: VIEWS.side, scale: 0.32, hold: [HIP_MIDDLE, 130, 122], boxes: COUCH }],
    reads: {
      knee_angle: {
        of: "angle",
        axis: "knee_centre",
        zero: ["thigh", 0, 0, -1],
        moving: "ankle_centre",
        turn: -1,
      },
    },
  },
  prone_extension: {
    example: { extension: 16 },
    pose: (n) => prone({ flexion: -number(n, "extension") }),
    panels: [{ view: VIEWS.side, scale: 0.31, hold: [HIP_MIDDLE, 132, 108], boxes: COUCH }],
    reads: {
      extension: {
        of: "angle",
        axis: "hip_centre",
        zero: ["room", 1, 0, 0],
        moving: "knee_centre",
        turn: -1,
      },
    },
  },
  prone_rotation: {
    example: { internal_rotation: 34 },
    pose: (n) =>
      prone({
        rotation: number(n, "external_rotation") - number(n, "internal_rotation"),
        knee: 90,
        dorsiflexion: 0,
      }),
    panels: [FROM_FEET],
    reads: { internal_rotation: SHANK_OUT, external_rotation: { ...SHANK_OUT, turn: 1 } },
  },
  torsion: {
    example: { torsion: 13 },
    pose: (n) => prone({ rotation: -number(n, "torsion"), knee: 90, dorsiflexion: 0 }),
    panels: [
      { ...FROM_FEET, hold: [HIP_MIDDLE, 96, 136], window: [0, 182] },
      {
        view: VIEWS.behind,
        scale: 0.9,
        hold: ["hip_centre", 262, 84],
        shows: "leg",
        bones: ["femur"],
        window: [190, 320],
      },
    ],
    reads: { torsion: SHANK_OUT },
  },
  sacral_thrust: {
    example: {},
    pose: () => prone({}),
    panels: [
      {
        view: VIEWS.side,
        scale: 0.36,
        hold: [HIP_MIDDLE, 168, 104],
        boxes: COUCH,
        bones: ["ilium", "sacrum"],
      },
    ],
  },
  heel_prone: {
    example: { inversion: 17 },
    pose: (n) =>
      prone({ dorsiflexion: 0, inversion: number(n, "inversion", -number(n, "eversion")) }),
    panels: [
      {
        view: VIEWS.above,
        scale: 1.12,
        hold: ["ankle_centre", 176, 84],
        boxes: FEET_OFF_PRONE,
        shows: "lower",
      },
    ],
    reads: { inversion: HEEL_LINE, eversion: { ...HEEL_LINE, turn: 1 } },
  },
  calf_squeeze: {
    example: {},
    pose: () => prone({ dorsiflexion: -28 }, { dorsiflexion: -10 }),
    panels: [
      {
        view: { look: [-0.2, 0.798, -0.569], up: [-0.138, 0.552, 0.823] },
        scale: 0.5,
        hold: ["ankle_centre", 226, 78],
        boxes: FEET_OFF_PRONE,
        shows: "legs",
        ghosts: [() => prone({ dorsiflexion: -4 }, { dorsiflexion: -10 })],
      },
    ],
  },
  resting_tone: {
    example: { angle: 22 },
    pose: (n) => {
      const leg: Leg = { knee: 90, dorsiflexion: -number(n, "angle") };
      return prone(leg, { knee: 90, dorsiflexion: -22 });
    },
    panels: [{ view: VIEWS.side, scale: 0.4, hold: [HIP_MIDDLE, 90, 150], boxes: COUCH }],
    reads: {
      angle: {
        of: "angle",
        axis: "lateral_malleolus",
        zero: ["shank", 1, 0, 0],
        moving: { way: ["foot", 1, 0, 0] },
        turn: -1,
      },
    },
  },
  achilles_gap: {
    example: {},
    pose: () => prone({ dorsiflexion: -14 }),
    panels: [
      {
        view: VIEWS.side,
        scale: 0.62,
        hold: ["ankle_centre", 226, 92],
        boxes: FEET_OFF_PRONE,
        shows: "leg",
      },
    ],
  },
  ober: {
    example: { thigh_drop: -12 },
    pose: (n) => onSide({ flexion: -4, abduction: number(n, "thigh_drop"), knee: 80 }),
    panels: [{ view: VIEWS.side, scale: 0.34, hold: [HIP_MIDDLE, 176, 98], boxes: COUCH }],
    reads: {
      thigh_drop: {
        of: "angle",
        axis: "hip_centre",
        zero: ["room", -1, 0, 0],
        moving: "knee_centre",
        turn: 1,
      },
    },
  },
  posterior_impingement: {
    example: {},
    pose: () => onSide({ flexion: -22, abduction: 12, rotation: 34, knee: 46 }),
    panels: [{ view: VIEWS.above, scale: 0.31, hold: [HIP_MIDDLE, 176, 92], boxes: COUCH }],
  },
  side_abduction: {
    example: {},
    pose: () => onSide({ abduction: 26 }),
    panels: [{ view: VIEWS.side, scale: 0.285, hold: [HIP_MIDDLE, 184, 112], boxes: COUCH }],
  },
  si_compression: {
    example: {},
    pose: () => onSide({ flexion: 44, knee: 70 }),
    panels: [
      {
        view: VIEWS.side,
        scale: 0.42,
        hold: [HIP_MIDDLE, 160, 92],
        boxes: COUCH,
        bones: ["ilium", "sacrum"],
        bonesOf: "both",
      },
    ],
  },
  subtalar_glide: {
    example: { shift: 0 },
    pose: (n) => onSide({ inversion: 0, slide: [0, -number(n, "shift"), 0] }, {}),
    panels: [
      {
        view: VIEWS.side,
        scale: 0.92,
        hold: ["ankle_centre", 130, 84],
        shows: "lower",
        boxes: [
          [
            [-440, -175, -16],
            [560, 175, 0],
          ],
        ],
        bones: ["tibia", "fibula", "talus", "calcaneus"],
      },
    ],
  },
} satisfies Record<string, Kind>;
