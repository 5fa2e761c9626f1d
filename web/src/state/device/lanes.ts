// Which lane stands first on this device. Left and right are the athlete's and never change their
// colour, letter or drawing; only where their lanes stand does, and then everywhere.
import type { Side } from "../../api/client";

const LANES_KEPT = "north-stride/lanes";

const kept = (): string | null =>
  typeof window === "undefined" ? null : window.localStorage.getItem(LANES_KEPT);

/** The side whose lane is drawn first, from the left. Fixed while a page is open. */
export const FIRST: Side = kept() === "right" ? "right" : "left";
export const SECOND: Side = FIRST === "left" ? "right" : "left";
/** As they are drawn, from the left. */
export const LANES: readonly [Side, Side] = [FIRST, SECOND];

/** Where a side's lane has its outer edge. */
export const edgeOf = (side: Side): "at-start" | "at-end" =>
  side === FIRST ? "at-start" : "at-end";

/** The classes of a side's lane: whose it is, and where it stands. */
export const laneOf = (side: Side): string => `lane-${side} ${edgeOf(side)}`;

/** The classes of what belongs to a side within its lane; what has no side is of both. */
export const ofSide = (side: Side | null): string =>
  side === null ? "both" : `${side} ${edgeOf(side)}`;

/** Chosen once, and drawn so from the start: a page is never rearranged under a hand. */
export function chooseFirst(side: Side): void {
  window.localStorage.setItem(LANES_KEPT, side);
  window.location.reload();
}

/** Another tab of this device chose: two tabs that differ would mix up sides. */
export function followLanes(): void {
  window.addEventListener("storage", (event) => {
    if (event.key === LANES_KEPT && event.newValue !== FIRST) window.location.reload();
  });
}
