import { type CSSProperties, useLayoutEffect, useRef, useState } from "react";
import type { Side } from "../api/client";
import { classes } from "../components/base/classes";
import { SideMark } from "../components/marks/SideMark";
import { FIRST, LANES, SECOND } from "../state/device/lanes";
import styles from "./body-chart.module.css";
import { reaches, type Spotted } from "./labels";
import { Drawing } from "./MapView";
import map from "./map.module.css";
import { boxOf, codesOn, PAIN, spotOf, viewName } from "./places";

interface CloserView {
  view: string;
  label: string;
  x: number;
  y: number;
}

// What lies too close together for a finger on a whole body has a closer picture.
const CLOSER: Readonly<Record<string, readonly CloserView[]>> = {
  body_front: [
    { view: "leg_front", label: "Shin, closer", x: 8.2, y: 74 },
    { view: "ankle_outside", label: "Ankle, closer", x: 7.6, y: 87.6 },
    { view: "foot_above", label: "Foot from above, closer", x: 6.4, y: 96 },
  ],
  body_back: [
    { view: "ankle_behind", label: "Ankle from behind, closer", x: 7, y: 88.5 },
    { view: "foot_sole", label: "Sole and heel, closer", x: 7, y: 96.5 },
  ],
};
const BEHIND_A_DOOR: ReadonlySet<string> = new Set([
  "fibula_shaft",
  "fibular_head",
  "tibia_shaft",
  "under_hand",
]);

/** The closer pictures of a limb, by short names. */
export const CLOSE_VIEWS = [
  ["leg_front", "shin"],
  ["ankle_outside", "outside"],
  ["ankle_inside", "inside"],
  ["ankle_behind", "behind"],
  ["foot_above", "above"],
  ["foot_sole", "sole"],
  ["forefoot_above", "toes above"],
  ["forefoot_sole", "toes below"],
] as const;

/** Places a whole body shows by themselves, on either view. */
const ON_CHART: ReadonlySet<string> = new Set(
  [...codesOn(PAIN, "body_front"), ...codesOn(PAIN, "body_back")].filter(
    (code) => !BEHIND_A_DOOR.has(code),
  ),
);

interface Props {
  view: "body_front" | "body_back";
  labelOf: (code: string) => string;
  toldAt: (code: string, side: Side) => string | undefined;
  onPoint: (code: string, side: Side) => void;
  onCloser: (view: string, side: Side) => void;
}

/** The halves of a chart, by whose lane they stand in. */
const HALF_OF: Readonly<Record<Side, Side>> = { [FIRST]: "left", [SECOND]: "right" } as Record<
  Side,
  Side
>;

// With the right lane first, the front is seen as one faces them, and the back as in a mirror.
const CAPTION: Readonly<Record<Props["view"], string>> =
  FIRST === "left"
    ? { body_front: viewName("body_front"), body_back: viewName("body_back") }
    : { body_front: "front, facing them", body_back: "back, as in a mirror" };

/** The whole body, each side in its own lane whichever way it faces. */
export function BodyChart({ view, labelOf, toldAt, onPoint, onCloser }: Props) {
  const [width, height] = boxOf(view);
  const { frame, size } = useHeight();
  const codes = codesOn(PAIN, view).filter((code) => !BEHIND_A_DOOR.has(code));
  const places = LANES.flatMap((side) => [
    ...codes.flatMap((code) => {
      const spot = spotOf(PAIN, code, view, HALF_OF[side]);
      return spot ? [{ code, side, ...spot, closer: false }] : [];
    }),
    ...(CLOSER[view] ?? []).map((closer) => ({
      code: closer.view,
      side,
      left: ((side === FIRST ? closer.x : width - closer.x) / width) * 100,
      top: (closer.y / height) * 100,
      closer: true,
    })),
  ]);
  const spotted: Spotted[] = places.map((place) => ({
    code: `${place.code} ${place.side}`,
    label: "",
    left: place.left,
    top: place.top,
    first: false,
  }));
  const reach = reaches(spotted, (size * width) / height, size);
  /** What is told of places that only a closer picture shows: said at the first closer to it. */
  const behind = (close: string, side: Side) =>
    codesOn(PAIN, close)
      .filter((code) => !ON_CHART.has(code))
      .filter(
        (code) => CLOSER[view]?.find((at) => codesOn(PAIN, at.view).includes(code))?.view === close,
      )
      .map((code) => toldAt(code, side))
      .find((told) => told !== undefined);
  const closerLabel = (code: string) =>
    CLOSER[view]?.find((closer) => closer.view === code)?.label ?? labelOf(code);
  return (
    <figure className={styles.chart} data-first={FIRST} aria-label={CAPTION[view]}>
      <figcaption>
        <SideMark side={FIRST} />
        <span>{CAPTION[view]}</span>
        <SideMark side={SECOND} />
      </figcaption>
      <div className={styles.room}>
        <div
          ref={frame}
          className={classes(map.map, styles.body)}
          style={{ "--shape": width / height } as CSSProperties}
        >
          <Drawing view={view} />
          {places.map(({ code, side, left, top, closer }) => {
            const told = closer ? behind(code, side) : toldAt(code, side);
            const name = closer ? closerLabel(code) : labelOf(code);
            return (
              <button
                key={`${code} ${side}`}
                type="button"
                className={classes(styles.point, side)}
                data-closer={closer || undefined}
                data-told={told !== undefined || undefined}
                style={
                  {
                    left: `${left}%`,
                    top: `${top}%`,
                    "--reach": `${reach.get(`${code} ${side}`) ?? 44}px`,
                  } as CSSProperties
                }
                aria-label={`${name}, ${side}${told === undefined ? "" : `: ${told || "here"}`}`}
                aria-pressed={closer ? undefined : told !== undefined}
                onClick={() => (closer ? onCloser(code, side) : onPoint(code, side))}
              >
                <span aria-hidden="true">{told ?? ""}</span>
                <em aria-hidden="true">{name}</em>
              </button>
            );
          })}
        </div>
      </div>
    </figure>
  );
}

/** The height a chart has, so that its targets keep apart. */
function useHeight() {
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState(0);
  useLayoutEffect(() => {
    const drawn = frame.current;
    if (!drawn) return;
    const watch = new ResizeObserver(() => setSize(drawn.clientHeight));
    watch.observe(drawn);
    return () => watch.disconnect();
  }, []);
  return { frame, size };
}
