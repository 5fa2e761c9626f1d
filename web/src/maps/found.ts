// What was found on a map: the view that shows most of it, and the mark of each place on it.
import type { Measure } from "../api/catalogue";
import type { Side } from "../api/client";
import type { Json } from "../state/domain/fields";
import { listed, markOf } from "../state/domain/pressing";
import { codesOn, spotOf } from "./places";

export interface FoundOn {
  view: string;
  marks: { code: string; left: number; top: number; mark: string }[];
  /** What was found, in words. */
  says: string;
}

export function foundOn(
  measure: Measure,
  side: Side,
  values: ReadonlyMap<string, Json>,
): FoundOn | null {
  const { map } = measure;
  if (!map) return null;
  const all = measure.choices.map((choice) => choice.code);
  const found = listed(values.get(measure.code)) ?? [];
  const pressed = map.pressed === null ? null : listed(values.get(map.pressed));
  const on = (view: string) => codesOn(map.points, view).filter((code) => all.includes(code));
  const shows = (view: string) => on(view).filter((code) => found.includes(code)).length;
  const [first = ""] = map.views;
  const view = map.views.reduce((one, two) => (shows(two) > shows(one) ? two : one), first);
  const mark = (code: string) => {
    if (map.pressed !== null) return markOf(code, { tender: found, pressed }, all);
    return found.includes(code) ? "on" : "clear";
  };
  const names = measure.choices
    .filter(({ code }) => found.includes(code))
    .map(({ label }) => label);
  return {
    view,
    marks: on(view).flatMap((code) => {
      const spot = spotOf(map.points, code, view, side);
      const shown = mark(code);
      return spot && shown !== "open"
        ? [{ code, left: spot.left, top: spot.top, mark: shown }]
        : [];
    }),
    says: `${measure.label}, ${side}: ${names.join(", ") || "none"}`,
  };
}
