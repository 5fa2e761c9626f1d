// Standing, and what is done on the spot.
import { type Leg, legPlace, type Pose, solved } from "../body";
import { VIEWS } from "../camera";
import { MM_PER_UNIT } from "../skeleton/shape";
import { FLOOR, STEP } from "./furniture";
import { type Box, type Kind, type Numbers, number } from "./kind";
import { dropped, GROUND, inRow, LIFTED, stands } from "./upright";

/** The shank's lean at which the knee just reaches a wall this far from the toe, in millimetres. */
function leanFor(distance: number): number {
  return solved(0, 70, distance / MM_PER_UNIT, (lean) => {
    const pose = lunging(lean);
    return legPlace(pose, "great_toe_tip")[0] - legPlace(pose, "knee_front")[0];
  });
}

const lunging = (lean: number): Pose =>
  stands(
    { dorsiflexion: lean, knee: lean + 26, flexion: 26 },
    { flexion: -24, knee: 26, dorsiflexion: 16 },
    { arms: { tested: { flexion: 70, elbow: 20 }, other: { flexion: 70, elbow: 20 } } },
  );

const lungeOf = (n: Numbers): Pose =>
  lunging(
    "distance" in n && !("tibia_angle" in n)
      ? leanFor(number(n, "distance"))
      : number(n, "tibia_angle"),
  );

/** The wall stands where the knee touches it. */
function wall(n: Numbers): readonly Box[] {
  const knee = legPlace(lungeOf(n), "knee_front")[0];
  return [
    ...FLOOR,
    [
      [knee - 16, -200, 0],
      [knee, 200, 700],
    ],
  ];
}

const squatting = (knee: number): Pose => {
  const leg: Leg = { dorsiflexion: knee * 0.3, knee, flexion: knee * 0.98, abduction: 6 };
  return stands(leg, leg, {
    arms: { tested: { flexion: 96, elbow: 4 }, other: { flexion: 96, elbow: 4 } },
  });
};

export const STANDING = {
  standing: {
    example: {},
    pose: () => stands({}),
    panels: [
      ...inRow(VIEWS.feet, 0.148, [stands({})]).map((p) => ({
        ...p,
        hold: [GROUND, 66, 146] as const,
        window: [0, 112] as const,
        bones: ["patella"] as const,
        bonesOf: "both" as const,
      })),
      ...inRow(VIEWS.side, 0.148, [stands({})]).map((p) => ({
        ...p,
        hold: [GROUND, 160, 146] as const,
        window: [112, 208] as const,
      })),
      ...inRow(VIEWS.behind, 0.148, [stands({})]).map((p) => ({
        ...p,
        hold: [GROUND, 256, 146] as const,
        window: [208, 320] as const,
      })),
    ],
  },
  one_leg_stance: {
    example: { tilt: 2 },
    pose: (n) => dropped(number(n, "tilt"), 0),
    panels: [
      {
        view: VIEWS.behind,
        scale: 0.44,
        hold: ["hip_centre", 86, 112],
        window: [0, 204],
      },
      {
        view: VIEWS.behind,
        scale: 0.142,
        hold: [GROUND, 258, 148],
        boxes: FLOOR,
        window: [212, 320],
      },
    ],
    reads: {
      tilt: {
        of: "angle",
        axis: "psis",
        zero: ["room", 0, 1, 0],
        moving: "psis",
        movingLimb: "other",
        turn: -1,
        reach: 78,
      },
    },
  },
  one_leg_hold: {
    example: {},
    pose: () =>
      stands({}, LIFTED, { arms: { tested: { abduction: 16 }, other: { abduction: 16 } } }),
    panels: [
      {
        view: { look: [0.863, 0.502, -0.06], up: [0.052, 0.03, 0.998] },
        scale: 0.15,
        hold: [GROUND, 160, 150],
        boxes: FLOOR,
      },
    ],
  },
  lunge: {
    example: { tibia_angle: 38 },
    pose: lungeOf,
    panels: [
      {
        view: VIEWS.side,
        scale: 0.4,
        hold: [GROUND, 138, 148],
        boxes: wall,
        shows: "legs",
        window: [0, 214],
      },
      { view: VIEWS.side, scale: 0.15, hold: [GROUND, 254, 148], boxes: wall, window: [220, 320] },
    ],
    reads: {
      tibia_angle: {
        of: "angle",
        axis: "ankle_centre",
        zero: ["room", 0, 0, 1],
        moving: "knee_centre",
        turn: -1,
      },
      distance: { of: "length", from: "knee_front", to: "great_toe_tip", level: 6 },
    },
  },
  squat: {
    example: {},
    pose: () => squatting(104),
    panels: [
      { view: VIEWS.side, scale: 0.2, hold: [GROUND, 92, 148], boxes: FLOOR, window: [0, 176] },
      {
        view: VIEWS.feet,
        scale: 0.2,
        hold: [GROUND, 256, 148],
        boxes: FLOOR,
        bones: ["patella"],
        bonesOf: "both",
        window: [180, 320],
      },
    ],
  },
  step_down: {
    example: {},
    pose: () =>
      stands(
        { dorsiflexion: 28, knee: 62, flexion: 52, abduction: -8 },
        { flexion: 24, knee: 14, dorsiflexion: 10 },
        {
          from: [0, 0, 110],
          arms: { tested: { abduction: 60, elbow: 100 }, other: { abduction: 60, elbow: 100 } },
        },
      ),
    panels: [
      {
        view: VIEWS.feet,
        scale: 0.142,
        hold: [GROUND, 160, 152],
        boxes: STEP,
        bones: ["patella"],
      },
    ],
  },
  lumbar: {
    example: {},
    pose: () => stands({}),
    panels: [
      {
        view: VIEWS.side,
        scale: 0.15,
        hold: [GROUND, 92, 148],
        boxes: FLOOR,
        window: [0, 160],
        pose: () => {
          const leg: Leg = { flexion: 64, dorsiflexion: -6, knee: 2 };
          return stands(leg, leg, {
            spineFlexion: 40,
            arms: { tested: { flexion: 100 }, other: { flexion: 100 } },
          });
        },
      },
      {
        view: VIEWS.side,
        scale: 0.15,
        hold: [GROUND, 234, 148],
        boxes: FLOOR,
        window: [160, 320],
        pose: () => {
          const leg: Leg = { flexion: -10, dorsiflexion: 6 };
          return stands(leg, leg, { spineFlexion: -24 });
        },
      },
    ],
  },
  palpation_hip: {
    example: {},
    pose: () => stands({}),
    panels: [
      {
        view: VIEWS.feet,
        scale: 0.42,
        hold: [["pelvis", 0, 0, 0], 78, 82],
        window: [0, 158],
        bones: ["sacrum", "ilium", "femur"],
        bonesOf: "both",
      },
      {
        view: VIEWS.behind,
        scale: 0.42,
        hold: [["pelvis", 0, 0, 0], 242, 82],
        window: [162, 320],
        bones: ["femur", "ilium", "sacrum"],
        bonesOf: "both",
      },
    ],
  },
  bends: {
    example: {},
    pose: () => stands({}),
    panels: [
      {
        view: VIEWS.side,
        scale: 0.15,
        hold: [GROUND, 92, 148],
        boxes: FLOOR,
        window: [0, 160],
        pose: () => {
          const leg: Leg = { flexion: 96, dorsiflexion: -8, knee: -6 };
          return stands(leg, leg, {
            spineFlexion: 52,
            arms: { tested: { flexion: 150 }, other: { flexion: 150 } },
          });
        },
      },
      {
        view: VIEWS.side,
        scale: 0.15,
        hold: [GROUND, 240, 148],
        boxes: FLOOR,
        window: [160, 320],
        pose: () =>
          stands(
            { knee: -12, flexion: -4, dorsiflexion: -8 },
            { knee: -12, flexion: -4, dorsiflexion: -8 },
            {
              arms: { tested: { flexion: 70, elbow: -14 }, other: { flexion: 70, elbow: -14 } },
            },
          ),
      },
    ],
  },
} satisfies Record<string, Kind>;
