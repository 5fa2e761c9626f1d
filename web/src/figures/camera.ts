// Looking at the room without perspective: a direction of sight, what is up, how large, what is held where.
import { cross, dot, unit, type Vec } from "./space";

export interface View {
  look: Vec;
  up: Vec;
}

/** Sheet units; y runs down. */
export interface Point {
  x: number;
  y: number;
}

export const SHEET = { width: 320, height: 160 } as const;

export interface Camera {
  look: Vec;
  up: Vec;
  right: Vec;
  scale: number;
  project: (at: Vec) => [number, number];
}

/** A camera that shows the room's point `held` at the sheet's point `at`. */
export function cameraOf(
  view: View,
  scale: number,
  held: Vec,
  at: readonly [number, number],
): Camera {
  const look = unit(view.look);
  const up = unit(view.up);
  const right = cross(look, up);
  const x0 = at[0] - dot(held, right) * scale;
  const y0 = at[1] + dot(held, up) * scale;
  return {
    look,
    up,
    right,
    scale,
    project: (p) => [x0 + dot(p, right) * scale, y0 - dot(p, up) * scale],
  };
}

export const VIEWS = {
  side: { look: [0, 1, 0], up: [0, 0, 1] },
  inner: { look: [0, -1, 0], up: [0, 0, 1] },
  above: { look: [0, 0, -1], up: [0, 1, 0] },
  /** Lying: from the feet. Upright: from the front. */
  feet: { look: [1, 0, 0], up: [0, 0, 1] },
  /** Lying face down: from the feet. Upright: from behind. */
  behind: { look: [-1, 0, 0], up: [0, 0, 1] },
  below: { look: [0, 0, 1], up: [0, -1, 0] },
} as const satisfies Record<string, View>;
