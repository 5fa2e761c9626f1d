import type { CSSProperties } from "react";
import type { Measure } from "../api/catalogue";
import type { Side } from "../api/client";
import type { Json } from "../state/fields";
import { listed, markOf } from "../state/pressing";
import { Drawing } from "./MapView";
import styles from "./map.module.css";
import { PointMark } from "./PointMark";
import { boxOf, codesOn, spotOf } from "./places";

interface Props {
  measure: Measure;
  side: Side;
  values: ReadonlyMap<string, Json>;
}

/** The view that shows most of what was found, with its marks; to be read, not to be tapped. */
export function FoundMap({ measure, side, values }: Props) {
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
  const [width, height] = boxOf(view);
  return (
    <div
      className={styles.map}
      style={{ "--shape": width / height } as CSSProperties}
      role="img"
      aria-label={`${measure.label}, ${side}: ${names.join(", ") || "none"}`}
    >
      <Drawing view={view} side={side} />
      {on(view).map((code) => {
        const spot = spotOf(map.points, code, view, side);
        const shown = mark(code);
        return spot && shown !== "open" ? (
          <span
            key={code}
            className={styles.found}
            style={{ left: `${spot.left}%`, top: `${spot.top}%` }}
          >
            <PointMark mark={shown} />
          </span>
        ) : null;
      })}
    </div>
  );
}
