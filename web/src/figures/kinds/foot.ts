// The foot and its toes.
import type { Leg, Pose } from "../body";
import { archOf, solved } from "../body";
import { VIEWS } from "../camera";
import { LANDMARKS } from "../skeleton/landmarks";
import { MM_PER_UNIT } from "../skeleton/shape";
import { radians } from "../space";
import { FLOOR } from "./furniture";
import { type AngleRead, type Kind, number, type Panel } from "./kind";
import { sitting } from "./sitting";

const standing = (tested: Leg): Pose => ({ position: "upright", tested, stands: "tested" });

/** The arch raised or sunk until the navicular is this high over the floor. */
function archAt(height: number): Leg {
  const [, forwards, , up] = LANDMARKS.navicular;
  const [, heelForwards, , heelUp] = LANDMARKS.heel_under;
  // The hindfoot pitches about the heel: no need to pose a body to know how high that brings it.
  const arch = solved(-20, 28, height / MM_PER_UNIT, (rise) => {
    const pitch = radians(archOf({ arch: rise }).hindfoot);
    return (forwards - heelForwards) * Math.sin(pitch) + (up - heelUp) * Math.cos(pitch);
  });
  return { arch };
}

const TOE: AngleRead = {
  of: "angle",
  axis: ["forefoot", 0, -16, 0],
  zero: ["forefoot", 1, 0, 0],
  moving: { way: ["toes", 1, 0, 0] },
  turn: -1,
  reach: 54,
};
const INNER_FOOT: Panel = {
  view: VIEWS.inner,
  scale: 1.12,
  hold: ["ankle_centre", 92, 66],
  shows: "lower",
  bones: ["calcaneus", "talus", "midfoot", "mt1", "phalanx1"],
};
const FROM_ABOVE: Panel = {
  view: VIEWS.above,
  scale: 1.3,
  hold: [["foot", 40, 0, 0], 160, 80],
  shows: "lower",
};

export const FOOT = {
  hindfoot: {
    example: { hindfoot_angle: 4 },
    pose: (n) => standing({ heelInversion: -number(n, "hindfoot_angle") }),
    panels: [
      {
        view: VIEWS.behind,
        scale: 0.86,
        hold: [["room", 0, 50, 0], 160, 142],
        shows: "lowers",
        boxes: FLOOR,
      },
    ],
    reads: {
      hindfoot_angle: {
        of: "angle",
        axis: "ankle_centre",
        zero: ["shank", 0, 0, -1],
        moving: { way: ["foot", 0, 0, -1] },
        turn: 1,
        reach: 40,
      },
    },
  },
  navicular_drop: {
    example: { height_neutral: 48, height_standing: 40 },
    pose: (n) => standing(archAt(number(n, "height_standing"))),
    panels: [
      {
        ...INNER_FOOT,
        scale: 0.98,
        hold: [["room", 0, 0, 0], 110, 138],
        bones: ["calcaneus", "talus", "tibia", "midfoot", "mt1", "phalanx1"],
        boxes: FLOOR,
        ghosts: [(n) => standing(archAt(number(n, "height_neutral")))],
      },
    ],
    reads: { height_standing: { of: "length", from: "below", to: "navicular" } },
  },
  windlass: {
    example: { toe: 48 },
    pose: (n) => standing({ toes: number(n, "toe"), forefootLift: -6 }),
    panels: [
      {
        ...INNER_FOOT,
        scale: 0.98,
        hold: [["room", 0, 0, 0], 110, 138],
        bones: ["calcaneus", "mt1", "phalanx1"],
        boxes: FLOOR,
        ghosts: [() => standing({})],
      },
    ],
  },
  first_mtp: {
    example: { extension: 58 },
    pose: (n) => sitting({ toes: number(n, "extension", -number(n, "flexion")) }),
    panels: [INNER_FOOT],
    reads: { extension: TOE, flexion: { ...TOE, turn: 1 } },
  },
  lesser_toes: {
    example: { extension: 40 },
    pose: (n) => sitting({ toes: number(n, "extension") }),
    panels: [
      {
        ...INNER_FOOT,
        view: VIEWS.side,
        hold: ["ankle_centre", 232, 62],
        bones: ["calcaneus", "talus", "midfoot", "mt3", "mt4", "mt5"],
      },
    ],
    reads: { extension: { ...TOE, axis: ["forefoot", 2, 4, 0], turn: 1 } },
  },
  plantar_plate: {
    example: {},
    pose: () => sitting({ toes: 26 }),
    panels: [
      {
        ...INNER_FOOT,
        scale: 1.5,
        hold: [["forefoot", 0, 0, 0], 184, 96],
        bones: ["midfoot", "mt2"],
        ligaments: ["plate"],
        ghosts: [() => sitting({})],
      },
    ],
  },
  mtp_grind: {
    example: {},
    pose: () => sitting({ toes: 6 }),
    panels: [{ ...INNER_FOOT, scale: 1.3, hold: [["forefoot", 0, 0, 0], 184, 96] }],
  },
  web_squeeze: {
    example: {},
    pose: () => sitting({}),
    panels: [
      {
        ...FROM_ABOVE,
        bones: ["calcaneus", "talus", "midfoot", "mt5", "mt4", "mt3", "mt2", "mt1", "phalanx1"],
      },
    ],
  },
  metatarsal_shear: {
    example: {},
    pose: () => sitting({}),
    panels: [
      {
        view: { look: [0.971, 0, -0.24], up: [0.24, 0, 0.971] },
        scale: 1.9,
        hold: [["forefoot", 0, 0, 0], 160, 96],
        shows: "lower",
        bones: ["mt5", "mt4", "mt3", "mt2", "mt1"],
      },
    ],
  },
  midfoot_stress: {
    example: {},
    pose: () => sitting({ forefootInversion: 16, forefootLift: 4 }),
    panels: [
      {
        view: { look: [0.201, 0.722, -0.662], up: [0.177, 0.638, 0.75] },
        scale: 0.98,
        hold: [["foot", 40, 0, -20], 150, 84],
        shows: "lower",
        bones: ["calcaneus", "talus", "midfoot", "mt5", "mt4", "mt3", "mt2", "mt1"],
        ghosts: [() => sitting({})],
      },
    ],
  },
  sole: {
    example: {},
    pose: () => sitting({}),
    panels: [{ ...FROM_ABOVE, view: VIEWS.below, scale: 1.42 }],
  },
  plantar_fascia: {
    example: {},
    pose: () => sitting({ toes: 44 }),
    panels: [{ ...INNER_FOOT, scale: 1, bones: ["calcaneus", "mt1", "phalanx1"] }],
  },
  toe_spread: {
    example: {},
    pose: () => sitting({}),
    panels: [FROM_ABOVE],
  },
} satisfies Record<string, Kind>;
