// Lying on the back.
import { type Leg, legBetween, legPlace, type Pose, solved } from "../body";
import { VIEWS } from "../camera";
import { MM_PER_UNIT } from "../skeleton/shape";
import type { Vec } from "../space";
import { COUCH, FEET_OFF } from "./furniture";
import { type AngleRead, type Kind, number } from "./kind";

export const HUG: Leg = { flexion: 112, knee: 122 };
export const HUGGING = {
  tested: { reach: { at: "tibial_tubercle", limb: "other" } },
  other: { reach: { at: "tibial_tubercle", limb: "other" } },
} as const;

/** The thigh against the trunk, from the side; up is plus. */
export const THIGH_UP: AngleRead = {
  of: "angle",
  axis: "hip_centre",
  zero: ["room", -1, 0, 0],
  moving: "knee_centre",
  turn: 1,
};

const THIGH_OUT: AngleRead = { ...THIGH_UP, turn: -1 };

const lying = (tested: Leg, other: Leg = {}): Pose => ({ position: "supine", tested, other });

/** The leg whose outer knee is this high over the couch, its ankle laid at a point of the hip's frame. */
function fallen(height: number, ankle: Vec): Leg {
  const fall = solved(-20, 115, height / MM_PER_UNIT, (turn) => {
    return legPlace(lying(legBetween(ankle, turn)), "knee_outer")[2];
  });
  return legBetween(ankle, fall);
}
// On the other thigh over the knee; and between the legs, the soles together.
const ON_OTHER_KNEE: Vec = [44, -92, -208];
const SOLES_TOGETHER: Vec = [-22, -24, -210];

const HIP_MIDDLE = ["pelvis", 0, 0, 0] as const;

export const SUPINE = {
  supine_flexion: {
    example: { flexion: 105 },
    pose: (n) => {
      const flexion = number(n, "flexion");
      return lying({ flexion, knee: Math.min(125, Math.max(0, flexion)) });
    },
    panels: [{ view: VIEWS.side, scale: 0.31, hold: [HIP_MIDDLE, 170, 116], boxes: COUCH }],
    reads: { flexion: THIGH_UP },
  },
  thomas: {
    example: { thigh_angle: 14 },
    pose: (n) => {
      const flexion = number(n, "thigh_angle");
      const knee = flexion > 0 ? Math.min(140, flexion * 2) : 0;
      return { ...lying({ flexion, knee }, HUG), arms: HUGGING };
    },
    panels: [{ view: VIEWS.side, scale: 0.32, hold: [HIP_MIDDLE, 178, 116], boxes: COUCH }],
    reads: { thigh_angle: THIGH_UP },
  },
  straight_leg_raise: {
    example: { angle: 64 },
    pose: (n) => lying({ flexion: number(n, "angle") }),
    panels: [{ view: VIEWS.side, scale: 0.24, hold: [HIP_MIDDLE, 168, 138], boxes: COUCH }],
    reads: { angle: THIGH_UP },
  },
  knee_extension_90: {
    example: { knee_short: 28 },
    pose: (n) => lying({ flexion: 90, knee: number(n, "knee_short") }),
    panels: [{ view: VIEWS.side, scale: 0.232, hold: [HIP_MIDDLE, 168, 138], boxes: COUCH }],
    reads: {
      knee_short: {
        of: "angle",
        axis: "knee_centre",
        zero: ["thigh", 0, 0, -1],
        moving: "ankle_centre",
        turn: -1,
      },
    },
  },
  supine_abduction: {
    example: { abduction: 38 },
    pose: (n) => lying({ abduction: number(n, "abduction") }, { abduction: 6 }),
    panels: [{ view: VIEWS.above, scale: 0.275, hold: [HIP_MIDDLE, 176, 54], boxes: COUCH }],
    reads: { abduction: THIGH_OUT },
  },
  supine_adduction: {
    example: { adduction: 22 },
    pose: (n) => lying({ abduction: -number(n, "adduction") }, { abduction: 44 }),
    panels: [{ view: VIEWS.above, scale: 0.285, hold: [HIP_MIDDLE, 176, 92], boxes: COUCH }],
    reads: { adduction: THIGH_UP },
  },
  faber: {
    example: { knee_height: 150 },
    pose: (n) => lying(fallen(number(n, "knee_height"), ON_OTHER_KNEE)),
    panels: [
      {
        view: { look: [0.12, 0.518, -0.847], up: [0.19, 0.825, 0.532] },
        scale: 0.34,
        hold: [HIP_MIDDLE, 190, 76],
        boxes: COUCH,
      },
    ],
    reads: { knee_height: { of: "length", from: "below", to: "knee_outer" } },
  },
  fadir: {
    example: {},
    pose: () => lying({ flexion: 96, abduction: -24, rotation: -28, knee: 96 }),
    panels: [
      {
        view: { look: [-0.14, 0.659, -0.739], up: [-0.153, 0.723, 0.674] },
        scale: 0.34,
        hold: [HIP_MIDDLE, 170, 122],
        boxes: COUCH,
      },
    ],
  },
  circumduction: {
    example: {},
    pose: () => lying({ flexion: 112, abduction: -16, rotation: -22, knee: 112 }),
    panels: [
      {
        view: { look: [-0.06, 0.621, -0.781], up: [-0.075, 0.778, 0.624] },
        scale: 0.34,
        hold: [HIP_MIDDLE, 170, 118],
        boxes: COUCH,
        ghosts: [() => lying({ flexion: 96, abduction: 38, rotation: 20, knee: 100 })],
      },
    ],
  },
  fall_out: {
    example: { knee_height: 190 },
    pose: (n) => {
      const here = fallen(number(n, "knee_height"), SOLES_TOGETHER);
      return lying(here, fallen(190, SOLES_TOGETHER));
    },
    panels: [{ view: VIEWS.feet, scale: 0.4, hold: [["room", 0, 0, 0], 160, 132], boxes: COUCH }],
    reads: { knee_height: { of: "length", from: "below", to: "knee_outer" } },
  },
  thigh_thrust: {
    example: {},
    pose: () => lying({ flexion: 90, knee: 70 }),
    panels: [
      {
        view: VIEWS.side,
        scale: 0.33,
        hold: [HIP_MIDDLE, 172, 120],
        boxes: COUCH,
        bones: ["femur", "ilium", "sacrum"],
      },
    ],
  },
  si_distraction: {
    example: {},
    pose: () => lying({}, {}),
    panels: [
      {
        view: VIEWS.above,
        scale: 0.52,
        hold: [HIP_MIDDLE, 160, 80],
        boxes: COUCH,
        bones: ["sacrum", "ilium"],
        bonesOf: "both",
      },
    ],
  },
  adductor_squeeze: {
    example: { angle: 45 },
    pose: (n) => {
      const flexion = number(n, "angle");
      const leg: Leg = { flexion, knee: flexion === 0 ? 0 : 90, abduction: 5 };
      return lying(leg, leg);
    },
    panels: [
      {
        view: { look: [0.55, 0.62, -0.56], up: [0.372, 0.419, 0.829] },
        scale: 0.3,
        hold: [HIP_MIDDLE, 200, 92],
        boxes: COUCH,
      },
    ],
  },
  leg_length: {
    example: {},
    pose: () => lying({}, {}),
    panels: [
      {
        view: VIEWS.above,
        scale: 0.33,
        hold: [HIP_MIDDLE, 166, 80],
        boxes: COUCH,
        window: [0, 206],
      },
      {
        view: VIEWS.side,
        scale: 0.27,
        hold: [HIP_MIDDLE, 292, 128],
        boxes: COUCH,
        shows: "legs",
        window: [212, 320],
        pose: (n) => {
          const bent: Leg = { flexion: 46, knee: 92 };
          const longerThigh = number(n, "galeazzi_femur") / MM_PER_UNIT;
          const longerShank = number(n, "galeazzi_tibia") / MM_PER_UNIT;
          return lying({ ...bent, longerThigh, longerShank }, bent);
        },
      },
    ],
    reads: {
      true_length: { of: "length", from: "asis", to: "medial_malleolus" },
      apparent_length: { of: "length", from: "umbilicus", to: "medial_malleolus" },
    },
  },
  ankle_side_straight: {
    example: { dorsiflexion: 6 },
    pose: (n) => lying({ dorsiflexion: number(n, "dorsiflexion", -number(n, "plantarflexion")) }),
    panels: [
      {
        view: VIEWS.side,
        scale: 0.5,
        hold: ["ankle_centre", 92, 100],
        boxes: FEET_OFF,
        shows: "leg",
      },
    ],
    reads: {
      dorsiflexion: {
        of: "angle",
        axis: "lateral_malleolus",
        zero: ["shank", 1, 0, 0],
        moving: { way: ["foot", 1, 0, 0] },
        turn: 1,
      },
    },
  },
} satisfies Record<string, Kind>;
