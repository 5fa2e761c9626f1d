import { useQuery } from "@tanstack/react-query";
import { type CSSProperties, useId } from "react";
import type { Side } from "../api/client";
import { classes } from "../components/base/classes";
import { useSize } from "../components/base/useSize";
import { drawingOf } from "./drawings";
import { labelSpots, linesOf, reaches, WHOLE_REACH } from "./labels";
import styles from "./map.module.css";
import { PointMark } from "./PointMark";
import { boxOf, fieldsOn, spotOf } from "./places";

export interface Point {
  code: string;
  label: string;
  mark: string;
  /** The mark in words. */
  says: string;
  /** Where the ask bar finds it. */
  id?: string;
}

interface Props {
  view: string;
  side: Side;
  list: string;
  points: Point[];
  bones: boolean;
  onPoint: (code: string) => void;
  /** Enter accepts what stands and goes on; without it Enter is a tap. */
  onEnter?: () => void;
}

/** One drawing with its points: each a button that says its name, its side and what was found. */
export function MapView({ view, side, list, points, bones, onPoint, onEnter }: Props) {
  const [width, height] = boxOf(view);
  const { frame, size } = useSize<HTMLDivElement>();
  const spotted = points.flatMap((point) => {
    const spot = spotOf(list, point.code, view, side);
    return spot ? [{ ...point, ...spot, first: HURTS.has(point.mark) }] : [];
  });
  const spots = labelSpots(spotted, size.width, size.height);
  const reach = reaches(spotted, size.width, size.height);
  return (
    <div ref={frame} className={styles.map} style={{ "--shape": width / height } as CSSProperties}>
      <Drawing view={view} bones={bones} side={side} tints={list === "fields" ? points : NOTHING} />
      {spotted.map((point) => (
        <button
          key={point.code}
          type="button"
          className={classes(styles.point, styles[spots.get(point.code) ?? "unnamed"])}
          style={
            {
              left: `${point.left}%`,
              top: `${point.top}%`,
              "--reach": `${size.width ? reach.get(point.code) : WHOLE_REACH}px`,
            } as CSSProperties
          }
          id={point.id}
          aria-label={`${point.label}, ${side}: ${point.says}`}
          onKeyDown={(event) => {
            if (event.key !== "Enter" || !onEnter) return;
            event.preventDefault();
            onEnter();
          }}
          onClick={() => onPoint(point.code)}
        >
          <PointMark mark={point.mark} />
          <span aria-hidden="true">{linesOf(point.label).join("\n")}</span>
        </button>
      ))}
    </div>
  );
}

const HURTS: ReadonlySet<string> = new Set(["tender", "sore", "on", "less", "absent"]);
const NOTHING: readonly Point[] = [];

interface DrawingProps {
  view: string;
  bones?: boolean;
  side?: Side;
  /** Fields of the skin that are shaded by what was found of them. */
  tints?: readonly Point[];
}

/** The same drawing for both sides: the right lane shows it mirrored. */
export function Drawing({ view, bones = false, side = "left", tints = NOTHING }: DrawingProps) {
  const drawing = useQuery({
    queryKey: ["drawing", view, bones],
    queryFn: () => drawingOf(view, bones),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [width, height] = boxOf(view);
  // Clips are named in the drawing: each lane has its own, so that neither leans on the other's.
  const own = useId().replaceAll(":", "");
  const inside = drawing.data?.replaceAll(/([cw]-[a-z_]+)/g, `$1-${own}`) ?? "";
  return (
    <svg
      className={classes(styles.drawing, side === "right" && styles.mirrored)}
      viewBox={`0 0 ${width} ${height}`}
      aria-hidden="true"
      focusable="false"
    >
      {/* biome-ignore lint/security/noDangerouslySetInnerHtml: our own drawing, shipped with the app */}
      <g dangerouslySetInnerHTML={{ __html: inside }} />
      <g clipPath={`url(#c-${view}-${own})`}>
        {fieldsOn(view).map(({ code, d }) => {
          const mark = tints.find((point) => point.code === code)?.mark;
          return mark === "less" || mark === "absent" ? (
            <path key={code} className={styles[`field-${mark}`]} d={d} />
          ) : null;
        })}
      </g>
    </svg>
  );
}
