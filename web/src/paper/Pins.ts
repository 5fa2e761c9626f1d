// Legs from the front, as in a mirror, with the numbers of what stands out beside where it lies.
import type { Side } from "../api/client";

export interface Pin {
  number: number;
  side: Side;
  region: string;
}

export interface Placed extends Pin {
  /** Where it lies, and where its number stands. */
  x: number;
  y: number;
  numberX: number;
  numberY: number;
}

// In the units of the drawing, on the athlete's left.
const AT: Readonly<Record<string, readonly [number, number]>> = {
  hip: [4, 26],
  groin: [10.5, 28],
  thigh: [8.5, 43],
  knee: [7.6, 58],
  leg: [7.6, 74],
  ankle: [7.2, 88],
  foot: [6.4, 95],
};
export const RADIUS = 3.4;
export const MARGIN = 10;
const APART = 2 * RADIUS + 0.6;

/** Numbers stand in the margin of their side, none over another. */
export function placed(pins: readonly Pin[], width: number, height: number): Placed[] {
  return (["left", "right"] as const).flatMap((side) => {
    const own = pins
      .flatMap((pin) => {
        const at = AT[pin.region];
        return pin.side === side && at ? [{ ...pin, x: at[0], y: at[1] }] : [];
      })
      .sort((one, two) => one.y - two.y || one.number - two.number);
    const highest = height - RADIUS - APART * (own.length - 1);
    let below = Number.NEGATIVE_INFINITY;
    return own.map((pin, place) => {
      const numberY = Math.min(Math.max(pin.y, below + APART), highest + APART * place);
      below = numberY;
      const mirrored = side === "right";
      return {
        ...pin,
        x: mirrored ? width - pin.x : pin.x,
        numberX: mirrored ? width + MARGIN - RADIUS : RADIUS - MARGIN,
        numberY,
      };
    });
  });
}
