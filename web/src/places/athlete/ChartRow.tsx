import { useState } from "react";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { useSize } from "../../components/base/useSize";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import { laneChart, scalesOf } from "../../state/domain/chart";
import { breakWords, linesOf, type Pair, pointWords } from "../../state/domain/course";
import { errorWords } from "../../state/domain/course_words";
import { plain, unitOf } from "../../state/domain/parse";
import { spanOf } from "../../state/domain/span";
import styles from "./athlete.module.css";
import { LaneLines } from "./LaneLines";
import { LineFiles } from "./LineFiles";
import type { AthleteParts } from "./parts";

const HEIGHT = 190;

/** One measure: each side's line in its own lane, the scale in the spine, both on one axis of time. */
export function ChartRow(props: AthleteParts & { pair: Pair }) {
  const { pair, course, today } = props;
  const { frame, size } = useSize<HTMLDivElement>();
  const [told, setTold] = useState<string | null>(null);
  const { test, measure, lines } = pair;
  const days = spanOf(course, today);
  const scales = scalesOf(pair, days, { width: size.width, height: HEIGHT });
  const lane = (side: Side) => {
    const line = lines[side] ?? lines.none;
    const other = lines[side === "left" ? "right" : "left"];
    return (
      <div
        ref={side === "left" ? frame : undefined}
        className={classes(laneOf(side), styles.chart, side)}
      >
        {line ? (
          <LaneLines
            name={`${test.name}, ${measure.label.toLowerCase()}, ${lines[side] ? side : "of no one side"}`}
            chart={laneChart(line, other, scales)}
            scales={scales}
            measure={measure}
            width={size.width}
            height={HEIGHT}
            events={course.events.filter((event) => event.side === side || event.side === null)}
            words={(at) => {
              const point = line.points[at];
              return point ? pointWords(line, point, measure) : "";
            }}
            onTold={setTold}
          />
        ) : (
          <span className="muted">not measured on this side</span>
        )}
      </div>
    );
  };
  return (
    <div className={classes("lanes", styles.row)} data-chart={pair.key}>
      {lane(FIRST)}
      <div className={classes("spine", styles.scale)}>
        {scales.ticks.map((tick) => (
          <i key={tick} style={{ top: `${scales.y(tick)}px` }}>
            {plain(tick)}
          </i>
        ))}
        <div>
          <strong>{test.name}</strong>
          <div>
            {measure.label.toLowerCase()}
            {pair.which ? `, ${pair.which}` : ""}
            {unitOf(measure).trim() ? `, ${unitOf(measure).trim()}` : ""}
          </div>
          <div className="muted">{errorWords(linesOf(pair), measure)}</div>
          <Breaks words={breakWords(linesOf(pair))} />
        </div>
        <LineFiles athlete={props.athlete.id} pair={pair} />
        <p className={styles.told} role="status">
          {told ?? ""}
        </p>
      </div>
      {lane(SECOND)}
    </div>
  );
}

/** Why the line is not one: the last break in words, the others counted; each stands with its value too. */
function Breaks({ words }: { words: string[] }) {
  const last = words.at(-1);
  if (!last) return null;
  const others = words.length - 1;
  return (
    <div className="muted small">
      Broken: {last}
      {others > 0 ? `, and ${others} more` : ""}
    </div>
  );
}
