// The ankle near by: ligaments, joint play, tendons, nerves and points.
import type { Leg } from "../body";
import { VIEWS, type View } from "../camera";
import type { BoneName } from "../skeleton/bones";
import type { Ligament } from "../skeleton/landmarks";
import { MM_PER_UNIT } from "../skeleton/shape";
import { type Kind, number, type Panel } from "./kind";
import { sitting } from "./sitting";

const OUTER_BONES: BoneName[] = ["tibia", "calcaneus", "talus", "midfoot", "mt5", "mt1", "fibula"];
const INNER_BONES: BoneName[] = [
  "fibula",
  "calcaneus",
  "talus",
  "midfoot",
  "mt1",
  "phalanx1",
  "tibia",
];
const HEEL_BONES: BoneName[] = ["tibia", "fibula", "talus", "calcaneus"];

const OUTER: Panel = {
  view: VIEWS.side,
  scale: 0.86,
  hold: ["ankle_centre", 168, 96],
  shows: "lower",
  bones: OUTER_BONES,
};
const INNER: Panel = {
  ...OUTER,
  view: VIEWS.inner,
  hold: ["ankle_centre", 140, 96],
  bones: INNER_BONES,
};
const BEHIND: Panel = {
  view: VIEWS.behind,
  scale: 1.12,
  hold: ["ankle_centre", 160, 92],
  shows: "lower",
  bones: HEEL_BONES,
};

/** A still leg, sitting, seen near by. */
const still = (panel: Panel, tested: Leg = {}, before?: Leg): Kind => ({
  example: {},
  pose: () => sitting(tested),
  panels: [before ? { ...panel, ghosts: [() => sitting(before)] } : panel],
});

const withBand = (panel: Panel, ...ligaments: Ligament[]): Panel => ({ ...panel, ligaments });

const mm = (numbers: Readonly<Record<string, number>>, code: string) =>
  number(numbers, code) / MM_PER_UNIT;

const FROM_ABOVE: View = { look: [0.5, 0.42, -0.758], up: [0.581, 0.488, 0.652] };
const OUTER_DOWN: View = { look: [0.181, 0.954, -0.241], up: [0.045, 0.237, 0.971] };
const INNER_DOWN: View = { look: [0.181, -0.954, -0.241], up: [0.045, -0.237, 0.971] };

export const ANKLE = {
  anterior_drawer: {
    example: { translation: 7 },
    pose: (n) => sitting({ dorsiflexion: -12, slide: [mm(n, "translation"), 0, 0] }),
    panels: [{ ...withBand(OUTER, "atfl"), ghosts: [() => sitting({ dorsiflexion: -12 })] }],
  },
  posterior_drawer: {
    example: { translation: 5 },
    pose: (n) => sitting({ dorsiflexion: -4, slide: [-mm(n, "translation"), 0, 0] }),
    panels: [{ ...withBand(OUTER, "ptfl"), ghosts: [() => sitting({ dorsiflexion: -4 })] }],
  },
  inversion_tilt: {
    example: {},
    pose: () => sitting({ inversion: 16 }),
    panels: [{ ...withBand(BEHIND, "cfl"), ghosts: [() => sitting({})] }],
  },
  eversion_tilt: {
    example: {},
    pose: () => sitting({ inversion: -12 }),
    panels: [{ ...withBand(BEHIND, "deltoid_middle"), ghosts: [() => sitting({})] }],
  },
  external_rotation_stress: still(
    {
      view: { look: [0.72, 0.18, -0.67], up: [0.65, 0.163, 0.742] },
      scale: 0.84,
      hold: ["ankle_centre", 160, 66],
      shows: "lower",
      bones: ["tibia", "fibula"],
      ligaments: ["syndesmosis"],
    },
    { toeOut: 24 },
    {},
  ),
  cotton: still(
    { ...withBand(BEHIND, "syndesmosis"), view: VIEWS.feet, scale: 1.05 },
    { slide: [0, 7, 0] },
    {},
  ),
  fibular_glide: still({
    ...OUTER,
    scale: 0.9,
    bones: ["tibia", "talus", "calcaneus", "fibula"],
    ligaments: ["syndesmosis"],
  }),
  shank_squeeze: still({
    view: VIEWS.feet,
    scale: 0.5,
    hold: ["ankle_centre", 160, 132],
    shows: "lower",
    bones: ["fibula", "tibia", "talus"],
  }),
  bone_tap: still({
    view: VIEWS.side,
    scale: 0.5,
    hold: ["ankle_centre", 160, 132],
    shows: "lower",
    bones: ["tibia", "fibula"],
  }),
  bump: still({
    view: VIEWS.side,
    scale: 0.42,
    hold: ["ankle_centre", 160, 106],
    shows: "lower",
    bones: ["tibia", "fibula", "calcaneus", "talus"],
  }),
  play_distraction: {
    example: { apart: 5 },
    pose: (n) => sitting({ slide: [0, 0, -number(n, "apart")] }),
    panels: [{ ...OUTER, ghosts: [() => sitting({})] }],
  },
  talar_swing: still(
    {
      view: VIEWS.side,
      scale: 0.5,
      hold: ["knee_centre", 128, 10],
      shows: "leg",
      bones: ["tibia", "talus", "fibula"],
    },
    { knee: 104, dorsiflexion: 14 },
    { knee: 76, dorsiflexion: -14 },
  ),
  peroneal: still(
    {
      view: { look: [-0.857, 0.299, -0.419], up: [-0.395, 0.138, 0.908] },
      scale: 0.9,
      hold: ["ankle_centre", 160, 70],
      shows: "lower",
      bones: ["fibula"],
    },
    { inversion: -14, dorsiflexion: 4 },
  ),
  resisted_ankle: still({
    view: VIEWS.side,
    scale: 0.76,
    hold: ["ankle_centre", 176, 94],
    shows: "lower",
  }),
  resisted_tilt: still({
    view: { look: [0.865, 0, -0.503], up: [0.503, 0, 0.865] },
    scale: 0.84,
    hold: ["ankle_centre", 160, 60],
    shows: "lower",
  }),
  palpation_ankle: {
    example: {},
    pose: () => sitting({}),
    panels: [
      { ...OUTER, scale: 0.74, hold: ["ankle_centre", 96, 96], window: [0, 158] },
      { ...INNER, scale: 0.74, hold: ["ankle_centre", 224, 96], window: [162, 320] },
    ],
  },
  pulses: {
    example: {},
    pose: () => sitting({ dorsiflexion: -8 }),
    panels: [
      {
        view: FROM_ABOVE,
        scale: 0.74,
        hold: ["ankle_centre", 100, 56],
        shows: "lower",
        bones: ["mt5", "mt4", "mt3", "mt2", "mt1"],
        window: [0, 158],
      },
      {
        ...INNER,
        scale: 0.64,
        hold: ["ankle_centre", 226, 96],
        bones: ["tibia"],
        window: [162, 320],
      },
    ],
  },
  girth: {
    example: {},
    pose: () => sitting({}),
    panels: [
      {
        view: VIEWS.side,
        scale: 0.44,
        hold: ["ankle_centre", 84, 128],
        shows: "lower",
        window: [0, 140],
      },
      {
        view: VIEWS.side,
        scale: 0.74,
        hold: ["ankle_centre", 244, 96],
        shows: "lower",
        window: [146, 320],
      },
    ],
  },
  stress_atfl: still(
    { ...withBand(OUTER, "atfl"), view: OUTER_DOWN, scale: 0.8 },
    { dorsiflexion: -24, inversion: 12, toeOut: -14 },
    {},
  ),
  stress_ptfl: still(
    { ...withBand(OUTER, "ptfl"), view: OUTER_DOWN, scale: 0.8 },
    { dorsiflexion: 12, toeOut: 18 },
    {},
  ),
  stress_cfl: still(withBand(BEHIND, "cfl"), { inversion: 14, dorsiflexion: 4 }, {}),
  stress_tibiocalcaneal: still(withBand(BEHIND, "deltoid_middle"), { inversion: -12 }, {}),
  stress_ptt: still(
    { ...withBand(INNER, "deltoid_back"), view: INNER_DOWN, scale: 0.8 },
    { dorsiflexion: 14, toeOut: 16 },
    {},
  ),
  stress_att_tn: still(
    { ...withBand(INNER, "deltoid_front"), view: INNER_DOWN, scale: 0.8 },
    { dorsiflexion: -16, toeOut: 12, inversion: -8 },
    {},
  ),
  outer_ankle: still({ ...OUTER, scale: 0.8 }),
  inner_ankle: still({ ...INNER, scale: 0.8 }),
  inner_leg: still({
    view: VIEWS.inner,
    scale: 0.5,
    hold: ["ankle_centre", 140, 128],
    shows: "lower",
    bones: ["tibia"],
  }),
  heel_squeeze: still({ ...BEHIND, scale: 0.98, hold: ["ankle_centre", 160, 84] }),
} satisfies Record<string, Kind>;
