import { type KeyboardEvent, useState } from "react";
import type { Compared } from "../../api/catalogue";
import type { CourseEvent } from "../../api/course";
import { type LaneChart, type Scales, type Spot, usualOf } from "../../state/domain/chart";
import { signed, unitOf } from "../../state/domain/parse";
import styles from "./athlete.module.css";

interface Props {
  name: string;
  chart: LaneChart;
  scales: Scales;
  measure: Compared;
  width: number;
  height: number;
  events: readonly CourseEvent[];
  /** A value in words, by its place. */
  words: (at: number) => string;
  onTold: (words: string | null) => void;
}

const STEPS: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1 };

/** One side's line. The arrow keys walk along its values, each said in words. */
export function LaneLines(props: Props) {
  const { name, chart, scales, measure, width, height, events, words, onTold } = props;
  const [at, setAt] = useState<number | null>(null);
  const last = chart.spots.length - 1;
  const show = (place: number | null) => {
    setAt(place);
    onTold(place === null ? null : words(place));
  };
  const walk = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    show(Math.min(Math.max((at ?? (step > 0 ? -1 : last + 1)) + step, 0), last));
  };
  const usual = usualOf(measure);
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`${name}: its values`}
      aria-valuemin={1}
      aria-valuemax={last + 1}
      aria-valuenow={(at ?? last) + 1}
      aria-valuetext={words(at ?? last)}
      onKeyDown={walk}
      onFocus={() => show(at ?? last)}
      onBlur={() => show(null)}
    >
      {width > 0 ? (
        <svg width={width} height={height} aria-hidden="true" focusable="false">
          {usual ? (
            <rect
              className={styles.usual}
              x="0"
              width={width}
              y={scales.y(usual[1])}
              height={Math.max(scales.y(usual[0]) - scales.y(usual[1]), 0)}
            />
          ) : null}
          {chart.band ? (
            <rect
              className={styles.band}
              x="0"
              width={width}
              y={chart.band.y}
              height={chart.band.height}
            />
          ) : null}
          {events.map((event) => (
            <line
              key={`${event.kind} ${event.date}`}
              className={styles[event.kind]}
              x1={scales.x(event.date)}
              x2={scales.x(event.date)}
              y1="0"
              y2={height}
            />
          ))}
          <path className={styles.ghost} d={chart.ghost} />
          {chart.stretches.map((path) => (
            <path key={path} className={styles.stretch} d={path} />
          ))}
          {chart.spots.map((spot, place) => (
            <SpotMark
              key={`${spot.point.screen} ${spot.point.date}`}
              spot={spot}
              chosen={place === at}
            />
          ))}
          <Ends chart={chart} measure={measure} width={width} />
        </svg>
      ) : null}
    </div>
  );
}

/** Hollow within error, filled beyond it, a square where the value does not count. */
function SpotMark({ spot, chosen }: { spot: Spot; chosen: boolean }) {
  const { x, y, point } = spot;
  const size = chosen ? 9 : 6;
  if (point.validity !== "valid") {
    return (
      <rect className={styles.spot} x={x - size} y={y - size} width={2 * size} height={2 * size} />
    );
  }
  return (
    <circle
      className={styles.spot}
      data-beyond={point.beyond || undefined}
      cx={x}
      cy={y}
      r={size}
    />
  );
}

/** The first and the last value, large where they stand: what is read from arm's length. */
function Ends({ chart, measure, width }: Pick<Props, "chart" | "measure" | "width">) {
  const [first] = chart.spots;
  const last = chart.spots.at(-1);
  const said = (value: number) =>
    `${signed(value, measure)}${measure.unit === "deg" ? unitOf(measure) : ""}`;
  return (
    <>
      {first ? (
        <text
          className={styles.first}
          x={Math.max(FIRST_HALF, Math.min(first.x, width - FIRST_HALF))}
          y={above(first)}
        >
          {said(first.point.value)}
        </text>
      ) : null}
      {last && last !== first ? (
        <text className={styles.last} x={Math.min(last.x, width - LAST_HALF)} y={above(last)}>
          {said(last.point.value)}
        </text>
      ) : null}
    </>
  );
}

// Half of the widest words a first and a last value are said in.
const FIRST_HALF = 36;
const LAST_HALF = 44;

const above = ({ y }: Spot): number => (y > 40 ? y - 13 : y + 28);
