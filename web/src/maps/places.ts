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
type List = Record<string, Partial<Record<string, Spot>>>;

const KEPT: Record<string, List> = data.lists;

/** Every place of pain, whichever tests ask for it: what a story is told on. */
export const PAIN = "pain";

const LISTS: Record<string, List> = {
  ...KEPT,
  [PAIN]: { ...KEPT.pain_hip, ...KEPT.pain_ankle, ...KEPT.pain_foot },
};

const FIELDS: Record<string, Record<string, string>> = data.fields;

/** The fields of the skin on a view, in drawing order: later ones lie on top. */
export const fieldsOn = (view: string): { code: string; d: string }[] =>
  Object.entries(FIELDS[view] ?? {}).map(([code, d]) => ({ code, d }));

// A whole body is so small on a card that its places are hard to hit.
const isWholeBody = (view: string): boolean => view.startsWith("body_");

/** Few views that together show every code of a list: near ones first, the fullest of them before others. */
export function viewsFor(list: string, codes: readonly string[]): string[] {
  const open = new Set(codes.filter((code) => LISTS[list]?.[code]));
  const chosen: string[] = [];
  const shows = (view: string) => codesOn(list, view).filter((code) => open.has(code)).length;
  for (const whole of [false, true]) {
    const offered = Object.keys(VIEWS).filter((view) => isWholeBody(view) === whole);
    while (offered.some((view) => shows(view) > 0)) {
      const best = offered.reduce((one, two) => (shows(two) > shows(one) ? two : one));
      chosen.push(best);
      for (const code of codesOn(list, best)) open.delete(code);
    }
  }
  return chosen;
}

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
