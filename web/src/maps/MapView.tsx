import { useQuery } from "@tanstack/react-query";
import { type CSSProperties, useId, useLayoutEffect, useRef, useState } from "react";
import type { Side } from "../api/client";
import { classes } from "../components/classes";
import { drawingOf } from "./drawings";
import { labelSpots, linesOf, reaches, WHOLE_REACH } from "./labels";
import styles from "./map.module.css";
import { boxOf, spotOf } from "./places";

export interface Point {
  code: string;
  label: string;
  mark: string;
  /** The mark in words. */
  says: string;
}

interface Props {
  view: string;
  side: Side;
  list: string;
  points: Point[];
  bones: boolean;
  onPoint: (code: string) => void;
}

/** One drawing with its points: each a button that says its name, its side and what was found. */
export function MapView({ view, side, list, points, bones, onPoint }: Props) {
  const [width, height] = boxOf(view);
  const { frame, size } = useSize();
  const spotted = points.flatMap((point) => {
    const spot = spotOf(list, point.code, view, side);
    return spot ? [{ ...point, ...spot, first: HURTS.has(point.mark) }] : [];
  });
  const spots = labelSpots(spotted, size.width, size.height);
  const reach = reaches(spotted, size.width, size.height);
  return (
    <div ref={frame} className={styles.map} style={{ "--shape": width / height } as CSSProperties}>
      <Drawing view={view} bones={bones} side={side} />
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
          aria-label={`${point.label}, ${side}: ${point.says}`}
          onClick={() => onPoint(point.code)}
        >
          <PointMark mark={point.mark} />
          <span aria-hidden="true">{linesOf(point.label).join("\n")}</span>
        </button>
      ))}
    </div>
  );
}

const HURTS: ReadonlySet<string> = new Set(["tender", "sore", "on"]);

/** The pixels a drawing has, so that names are laid where there is room for them. */
function useSize() {
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const drawn = frame.current;
    if (!drawn) return;
    const watch = new ResizeObserver(() =>
      setSize({ width: drawn.clientWidth, height: drawn.clientHeight }),
    );
    watch.observe(drawn);
    return () => watch.disconnect();
  }, []);
  return { frame, size };
}

/** The same drawing for both sides: the right lane shows it mirrored. */
function Drawing({ view, bones, side }: { view: string; bones: boolean; side: Side }) {
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
      // biome-ignore lint/security/noDangerouslySetInnerHtml: our own drawing, shipped with the app
      dangerouslySetInnerHTML={{ __html: inside }}
    />
  );
}

/** Marks that part without colour: broken ring, ring with a stroke, solid with rays, broken with rays. */
function PointMark({ mark }: { mark: string }) {
  const rays = mark === "tender" || mark === "sore";
  const broken = mark === "open" || mark === "sore";
  return (
    <svg className={styles.mark} viewBox="-16 -16 32 32" aria-hidden="true" focusable="false">
      <circle
        r="8"
        fill={mark === "tender" || mark === "on" ? "currentColor" : "var(--sheet)"}
        stroke="currentColor"
        strokeWidth="2"
        strokeDasharray={broken ? "3 2.6" : undefined}
      />
      {mark === "clear" ? <path d="M-4 0H4" stroke="currentColor" strokeWidth="2.4" /> : null}
      {mark === "open" ? <circle r="1.4" fill="currentColor" /> : null}
      {mark === "tender" ? <circle r="2.6" fill="var(--sheet)" /> : null}
      {rays
        ? [0, 45, 90, 135, 180, 225, 270, 315].map((turn) => (
            <path
              key={turn}
              d="M0 -10.5V-14.5"
              transform={`rotate(${turn})`}
              stroke="currentColor"
              strokeWidth="2.4"
            />
          ))
        : null}
    </svg>
  );
}
