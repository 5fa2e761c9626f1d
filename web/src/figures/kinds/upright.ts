// What standing and moving share.
import type { Arm, Leg, Pose } from "../body";
import { FLOOR } from "./furniture";
import type { Panel } from "./kind";

const DOWN: Arm = { abduction: 8 };
/** Standing on the tested foot, the arms at the side. */
export const stands = (tested: Leg, other: Leg = {}, more: Partial<Pose> = {}): Pose => ({
  position: "upright",
  tested,
  other,
  arms: { tested: DOWN, other: DOWN },
  stands: "tested",
  ...more,
});

export const LIFTED: Leg = { flexion: 26, knee: 80 };
export const GROUND = ["room", 0, 0, 0] as const;

/** Poses beside each other on one floor. */
export const inRow = (
  view: Panel["view"],
  scale: number,
  poses: readonly Pose[],
  wide = 320,
  from = 0,
): Panel[] =>
  poses.map((pose, index) => {
    const each = wide / poses.length;
    return {
      view,
      scale,
      hold: ["hip_centre", from + each * (index + 0.5), 146 - 530 * scale],
      boxes: FLOOR,
      pose: () => pose,
    };
  });

/** On one foot, the free side of the pelvis `tilt` up, the trunk leaning. */
export const dropped = (tilt: number, lean: number): Pose =>
  stands({ abduction: tilt }, { flexion: 14, knee: 40 }, { lean: tilt + lean });
