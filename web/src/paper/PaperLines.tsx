// A change line as a drawing by itself: each side in its own lane, the scale between, words it needs beside it.
import type { Side } from "../api/client";
import type { CourseEvent } from "../api/course";
import { laneChart, type Scales, type Spot, scalesOf, usualOf } from "../state/domain/chart";
import { breakWords, linesOf, movedWords, type Pair } from "../state/domain/course";
import { errorWords } from "../state/domain/course_words";
import { plain, signed, unitOf } from "../state/domain/parse";
import { dayWords } from "../state/domain/wording";
import { INK } from "./palette";

const LANE = { width: 220, height: 110 };
const SPINE = 120;
const HEAD = 16;
const ROW = 11;
const SAYS = { injury: "injured", return: "return test", amended: "amended" } as const;
const SIDES = ["left", "right"] as const;
const DASHES = { injury: undefined, return: "4 4", amended: "1 3" } as const;

interface Props {
  pair: Pair;
  events: readonly CourseEvent[];
  days: readonly [string, string];
}

/** What somebody hears who does not see it. */
export function wordsOf({ pair }: Pick<Props, "pair">): string {
  const { test, measure, lines } = pair;
  const each = SIDES.flatMap((side) => {
    const line = lines[side];
    return line ? [`${side}: ${movedWords(line, measure)}`] : [];
  });
  const both = lines.none ? [movedWords(lines.none, measure)] : [];
  return `${test.name}, ${measure.label.toLowerCase()}. ${[...each, ...both].join(". ")}.`;
}

/** The whole drawing, in the colours of paper. */
export function PaperLines({ pair, events, days }: Props) {
  const scales = scalesOf(pair, days, LANE);
  const notes = notesOf(pair, events);
  const width = 2 * LANE.width + SPINE;
  const height = HEAD + LANE.height + ROW * (notes.length + 1) + 6;
  return (
    <svg
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      fontFamily="Atkinson Hyperlegible Next, Noto Sans, sans-serif"
      fontSize="9"
      fill="var(--ink)"
    >
      <title>{wordsOf({ pair })}</title>
      <Lane {...{ pair, events, scales }} side="left" x={0} />
      <Spine {...{ pair, scales }} />
      <Lane {...{ pair, events, scales }} side="right" x={LANE.width + SPINE} />
      {[`${dayWords(days[0])} to ${dayWords(days[1])}. ${LEGEND}`, ...notes].map((words, at) => (
        <text key={words} x="0" y={HEAD + LANE.height + ROW * (at + 1)} fontSize="8">
          {words}
        </text>
      ))}
    </svg>
  );
}

const LEGEND = "Band: within error of the first value. Filled: beyond it. Square: does not count.";

function notesOf(pair: Pair, events: readonly CourseEvent[]): string[] {
  const told = events.map((event) => `${SAYS[event.kind]} ${dayWords(event.date)}`);
  const happened = [...new Set(told)].join(", ");
  const broken = breakWords(linesOf(pair));
  return [
    ...(happened ? [`Upright lines: ${happened}.`] : []),
    ...(broken.length > 0 ? [`Broken: ${broken.join("; ")}.`] : []),
  ];
}

function Spine({ pair, scales }: { pair: Pair; scales: Scales }) {
  const { test, measure, which } = pair;
  const middle = LANE.width + SPINE / 2;
  const unit = unitOf(measure).trim();
  const said = [measure.label.toLowerCase(), which, unit].filter(Boolean).join(", ");
  return (
    <g textAnchor="middle">
      <text x={middle} y={HEAD + 30} fontWeight="700">
        {test.name}
      </text>
      <text x={middle} y={HEAD + 42}>
        {said}
      </text>
      <text x={middle} y={HEAD + 54}>
        {errorWords(linesOf(pair), measure)}
      </text>
      {scales.ticks.map((tick) => (
        <g key={tick}>
          <path
            d={`M${LANE.width} ${HEAD + scales.y(tick)}h4M${LANE.width + SPINE} ${HEAD + scales.y(tick)}h-4`}
            stroke="var(--ink)"
          />
          <text x={LANE.width + 6} y={HEAD + scales.y(tick) + 3} textAnchor="start">
            {plain(tick)}
          </text>
        </g>
      ))}
    </g>
  );
}

interface LaneProps {
  pair: Pair;
  events: readonly CourseEvent[];
  scales: Scales;
  side: Side;
  x: number;
}

function Lane({ pair, events, scales, side, x }: LaneProps) {
  const { lines, measure } = pair;
  const line = lines[side] ?? lines.none;
  const chart = laneChart(line, lines[side === "left" ? "right" : "left"], scales);
  const usual = usualOf(measure);
  const here = events.filter((event) => event.side === side || event.side === null);
  return (
    <g transform={`translate(${x} 0)`}>
      <text
        x={side === "left" ? 0 : LANE.width}
        y="10"
        fontWeight="700"
        fill={INK[side]}
        textAnchor={side === "left" ? "start" : "end"}
      >
        {side === "left" ? "L  left" : "right  R"}
      </text>
      <g transform={`translate(0 ${HEAD})`}>
        {usual ? (
          <rect
            width={LANE.width}
            y={scales.y(usual[1])}
            height={Math.max(scales.y(usual[0]) - scales.y(usual[1]), 0)}
            fill={INK[side]}
            opacity="0.1"
          />
        ) : null}
        {chart.band ? (
          <rect
            width={LANE.width}
            y={chart.band.y}
            height={chart.band.height}
            fill="var(--shade)"
          />
        ) : null}
        {here.map((event) => (
          <path
            key={`${event.kind} ${event.date}`}
            d={`M${scales.x(event.date)} 0V${LANE.height}`}
            stroke="var(--ink)"
            strokeWidth="1.6"
            strokeDasharray={DASHES[event.kind]}
          />
        ))}
        <path d={chart.ghost} fill="none" stroke="var(--ink)" strokeDasharray="1 3" />
        {chart.stretches.map((path) => (
          <path key={path} d={path} fill="none" stroke={INK[side]} strokeWidth="2" />
        ))}
        {chart.spots.map((spot) => (
          <Mark key={`${spot.point.screen} ${spot.point.date}`} spot={spot} side={side} />
        ))}
        <Ends spots={chart.spots} said={(value) => signed(value, measure)} />
        {line ? null : (
          <text x={LANE.width / 2} y={LANE.height / 2} textAnchor="middle">
            not measured on this side
          </text>
        )}
      </g>
    </g>
  );
}

function Mark({ spot: { x, y, point }, side }: { spot: Spot; side: Side }) {
  const shape = { stroke: INK[side], strokeWidth: 1.6 };
  if (point.validity !== "valid") {
    return <rect x={x - 3.5} y={y - 3.5} width="7" height="7" fill="var(--sheet)" {...shape} />;
  }
  return (
    <circle cx={x} cy={y} r="3.5" fill={point.beyond ? INK[side] : "var(--sheet)"} {...shape} />
  );
}

function Ends({ spots, said }: { spots: Spot[]; said: (value: number) => string }) {
  const last = spots.at(-1);
  const ends = spots.length > 1 && last ? [spots[0], last] : spots;
  return ends.map((spot) =>
    spot ? (
      <text
        key={spot.point.date}
        x={Math.min(Math.max(spot.x, 14), LANE.width - 14)}
        y={spot.y > 20 ? spot.y - 7 : spot.y + 14}
        textAnchor="middle"
        fontWeight="700"
        fontSize="10"
      >
        {said(spot.point.value)}
      </text>
    ) : null,
  );
}
