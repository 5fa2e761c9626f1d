// Moving: rises, reaches, hops and the way they walk.
import { bodyOf, type Leg, type Limb, legPlace, type Pose, placeOf, solved } from "../body";
import { VIEWS } from "../camera";
import { LENGTHS, MM_PER_UNIT } from "../skeleton/shape";
import type { Vec } from "../space";
import { FLOOR } from "./furniture";
import { type Box, type Kind, number } from "./kind";
import { dropped, GROUND, inRow, LIFTED, stands } from "./upright";

/** On the toes, the heel this high. */
function risen(height: number): Pose {
  const pose = (turn: number) =>
    stands({ dorsiflexion: -turn, toes: turn }, LIFTED, { standsOn: "toes" });
  const turn = solved(0, 75, height / MM_PER_UNIT, (up) => legPlace(pose(up), "heel_under")[2]);
  return pose(turn);
}

/** The free foot this far in front of the standing one, along the floor. */
function reaching(distance: number): Pose {
  const pose = (forwards: number) =>
    stands(
      { dorsiflexion: 26, knee: 52, flexion: 44 },
      { flexion: forwards, knee: 18, dorsiflexion: -20, abduction: 2 },
      { arms: { tested: { abduction: 40 }, other: { abduction: 40 } } },
    );
  const far = (body: ReturnType<typeof bodyOf>) =>
    placeOf(body, "great_toe_tip")[0] - placeOf(body, "great_toe_tip", "other")[0];
  return pose(solved(20, 88, distance / MM_PER_UNIT, (forwards) => far(bodyOf(pose(forwards)))));
}

// Three lines on the floor: forwards, back and in, back and out.
const line = (low: Vec, high: Vec): Box => [low, high];
const REACHES: readonly Box[] = [
  line([-560, -6, 0], [0, 6, 1]),
  line([0, -6, 0], [420, 6, 1]),
  line([-6, -360, 0], [6, 360, 1]),
];

const PHASES: readonly { tested: Leg; other: Leg; on: Limb }[] = [
  {
    tested: { flexion: 26, knee: 4 },
    other: { flexion: -14, knee: 4, dorsiflexion: 18 },
    on: "other",
  },
  {
    tested: { flexion: 20, knee: 16, dorsiflexion: -4 },
    other: { flexion: -8, knee: 42, dorsiflexion: -12 },
    on: "tested",
  },
  {
    tested: { flexion: 2, knee: 6, dorsiflexion: 4 },
    other: { flexion: 24, knee: 58 },
    on: "tested",
  },
  {
    tested: { flexion: -14, knee: 4, dorsiflexion: 18 },
    other: { flexion: 26, knee: 4 },
    on: "tested",
  },
  {
    tested: { flexion: 24, knee: 58 },
    other: { flexion: 2, knee: 6, dorsiflexion: 4 },
    on: "other",
  },
];

const walking = ({ tested, other, on }: (typeof PHASES)[number]): Pose => ({
  position: "upright",
  tested,
  other,
  stands: on,
  from: [0, on === "tested" ? -LENGTHS.hipFromMiddle : LENGTHS.hipFromMiddle, 0],
  arms: {
    tested: { flexion: -(tested.flexion ?? 0), elbow: 18 },
    other: { flexion: -(other.flexion ?? 0), elbow: 18 },
  },
});

const aside = (y: number, tested: Leg = {}): Pose =>
  stands(tested, { flexion: 20, knee: 60 }, { from: [0, y, 0] });

export const MOVING = {
  heel_rise: {
    example: { height: 88 },
    pose: (n) => risen(number(n, "height")),
    panels: [
      {
        view: VIEWS.side,
        scale: 0.146,
        hold: [GROUND, 76, 150],
        boxes: FLOOR,
        window: [0, 140],
      },
      {
        view: VIEWS.side,
        scale: 0.66,
        hold: [GROUND, 216, 142],
        boxes: FLOOR,
        shows: "lower",
        window: [146, 320],
      },
    ],
    reads: { height: { of: "length", from: "below", to: "heel_under", panel: 1 } },
  },
  reach: {
    example: { anterior: 640 },
    pose: (n) => reaching(number(n, "anterior")),
    panels: [
      {
        view: { look: [0.601, 0.321, -0.732], up: [0.646, 0.344, 0.682] },
        scale: 0.165,
        hold: [GROUND, 168, 112],
        boxes: REACHES,
      },
    ],
  },
  hop: {
    example: { distance: 1480 },
    pose: (n) => {
      const landed = -number(n, "distance") / MM_PER_UNIT;
      return stands(
        { dorsiflexion: 26, knee: 58, flexion: 46 },
        { flexion: 30, knee: 80 },
        { from: [landed, 0, 0], arms: { tested: { flexion: 40 }, other: { flexion: 30 } } },
      );
    },
    panels: [
      {
        view: VIEWS.side,
        scale: 0.128,
        hold: [GROUND, 274, 146],
        boxes: FLOOR,
        ghosts: [
          () =>
            stands(
              { dorsiflexion: 24, knee: 50, flexion: 50 },
              { flexion: 20, knee: 86 },
              { arms: { tested: { flexion: -40 }, other: { flexion: -40 } } },
            ),
          (n) => ({
            position: "upright",
            tested: { flexion: -14, knee: 20, dorsiflexion: -34 },
            other: { flexion: 44, knee: 84 },
            spineFlexion: 10,
            arms: { tested: { flexion: 60 }, other: { flexion: 60 } },
            from: [-number(n, "distance") / MM_PER_UNIT / 2, 0, 560],
          }),
        ],
      },
    ],
    reads: { distance: { of: "length", from: ["room", 0, 0, 0], to: "heel_under", level: 6 } },
  },
  side_hop: {
    example: {},
    pose: () => aside(-110, { dorsiflexion: 16, knee: 34, flexion: 26 }),
    panels: [
      {
        view: VIEWS.feet,
        scale: 0.15,
        hold: [GROUND, 160, 146],
        boxes: [
          ...FLOOR,
          [
            [-200, -116, 0],
            [200, -108, 3],
          ],
          [
            [-200, 108, 0],
            [200, 116, 3],
          ],
        ],
        ghosts: [() => aside(230, { dorsiflexion: 16, knee: 34, flexion: 26 })],
      },
    ],
  },
  gait: {
    example: {},
    pose: () => walking(PHASES[2] ?? PHASES[0] ?? { tested: {}, other: {}, on: "tested" }),
    panels: inRow(VIEWS.side, 0.132, PHASES.map(walking)),
  },
  /** From the side, then from behind: level, dropped, lurching. */
  gait_watched: {
    example: {},
    pose: () => dropped(0, 0),
    panels: [
      ...inRow(VIEWS.side, 0.132, PHASES.slice(0, 2).map(walking), 150),
      ...inRow(VIEWS.behind, 0.138, [dropped(0, 0), dropped(-10, 0), dropped(-2, -14)], 160, 155),
    ],
  },
} satisfies Record<string, Kind>;
