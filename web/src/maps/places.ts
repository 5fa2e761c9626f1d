// Where things lie on the drawings: coordinates in each view's own units, for the athlete's left.
import type { Side } from "../api/client";
import data from "./points.json";

export interface Spot {
  x: number;
  y: number;
  r: number;
}

interface View {
  shows: string;
  box: number[];
}

const VIEWS: Record<string, View> = data.views;
const LISTS: Record<string, Record<string, Partial<Record<string, Spot>>>> = data.lists;

export const viewName = (view: string): string => VIEWS[view]?.shows ?? view;

/** Width and height of a view in its own units. */
export function boxOf(view: string): readonly [number, number] {
  const [width = 100, height = 100] = VIEWS[view]?.box ?? [];
  return [width, height];
}

/** The codes of a list that can be found on a view, in the list's order. */
export const codesOn = (list: string, view: string): string[] =>
  Object.entries(LISTS[list] ?? {})
    .filter(([, at]) => at[view] !== undefined)
    .map(([code]) => code);

/** Where a code lies on a view, in percent of its width and height; the right mirrors the left. */
export function spotOf(list: string, code: string, view: string, side: Side) {
  const spot = LISTS[list]?.[code]?.[view];
  if (!spot) return null;
  const [width, height] = boxOf(view);
  const x = side === "left" ? spot.x : width - spot.x;
  return { left: (x / width) * 100, top: (spot.y / height) * 100 };
}
