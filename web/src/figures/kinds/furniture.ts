// Couches, floor, step and wall, in units of the room.
import type { Box } from "./kind";

const WIDE = 175;
const THICK = 16;
const LOW = -400;

const slab = (from: number, to: number): Box => [
  [from, -WIDE, -THICK],
  [to, WIDE, 0],
];
const leg = (x: number): Box => [
  [x, -WIDE, LOW],
  [x + 14, WIDE, -THICK],
];

/** Long enough to lie on. */
export const COUCH: readonly Box[] = [slab(-620, 560), leg(-560), leg(500)];
/** Lying on the back, with the legs off the end. */
export const COUCH_END: readonly Box[] = [slab(-36, 560), leg(0), leg(500)];
/** Lying with the feet off the end. */
export const FEET_OFF: readonly Box[] = [slab(-440, 560), leg(-400), leg(500)];
export const FEET_OFF_PRONE: readonly Box[] = [slab(-560, 440), leg(-500), leg(400)];
/** Sitting at the edge. */
export const SEAT: readonly Box[] = [slab(-150, 240), leg(200), leg(-80)];
export const FLOOR: readonly Box[] = [
  [
    [-1400, -500, -8],
    [1400, 500, 0],
  ],
];
export const STEP: readonly Box[] = [
  ...FLOOR,
  [
    [-90, -110, 0],
    [90, 10, 110],
  ],
];
