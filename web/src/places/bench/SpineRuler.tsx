import type { Measure } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { useStore } from "../../components/base/useStore";
import { edgeOf, LANES } from "../../state/device/lanes";
import { type Place, placeKey, valueField } from "../../state/domain/fields";
import { plain, shownNumber } from "../../state/domain/parse";
import type { Bench } from "../../state/screen/bench";
import { clock } from "./clock";
import { heightOn, rulerFor } from "./ruler";
import styles from "./ruler.module.css";
import { useSeconds } from "./useSeconds";

interface Props {
  bench: Bench;
  measure: Measure;
  place: (side: Side) => Place;
}

const HIGH = 96;
const FLOOR = 104;
const COLUMN = { "at-start": 34, "at-end": 82 } as const;
const WIDE = 22;

/** Both sides on one scale: columns that grow, the target across, where it began to hurt. */
export function SpineRuler({ bench, measure, place }: Props) {
  useStore(bench.state);
  const running = useStore(clock);
  const runs = (side: Side) =>
    running !== null && placeKey(running.place) === placeKey(place(side));
  const seconds = useSeconds(runs("left") || runs("right"));
  const reached = (side: Side) =>
    runs(side) ? seconds : shownNumber(bench.value(place(side)), "mean");
  const onset = measure.clock?.onset;
  const hurt = (side: Side) =>
    onset ? shownNumber(bench.value({ ...place(side), field: valueField(onset) }), "mean") : null;
  const target = measure.clock?.target ?? null;
  const ruler = rulerFor(target, [reached("left"), reached("right")]);
  const y = (number: number) => FLOOR - heightOn(ruler, number) * HIGH;
  return (
    <svg className={styles.ruler} viewBox="0 0 138 112" aria-hidden="true" focusable="false">
      {ruler.ticks.map((tick) => (
        <text key={tick} x="69" y={y(tick) + 3.5} className={styles.tick}>
          {plain(tick)}
        </text>
      ))}
      {LANES.map((side) => (
        <Column
          key={side}
          side={side}
          reached={reached(side)}
          beside={reached(side === "left" ? "right" : "left")}
          hurt={hurt(side)}
          y={y}
        />
      ))}
      {target === null ? null : (
        <line className={styles.target} x1="26" x2="112" y1={y(target)} y2={y(target)} />
      )}
    </svg>
  );
}

interface ColumnProps {
  side: Side;
  reached: number | null;
  /** What the other side reached: an outline to climb to. */
  beside: number | null;
  hurt: number | null;
  y: (number: number) => number;
}

function Column({ side, reached, beside, hurt, y }: ColumnProps) {
  const x = COLUMN[edgeOf(side)];
  return (
    <g className={side}>
      {beside === null ? null : (
        <rect
          className={styles.outline}
          x={x}
          y={y(beside)}
          width={WIDE}
          height={FLOOR - y(beside)}
        />
      )}
      {reached === null ? null : (
        <rect x={x} y={y(reached)} width={WIDE} height={FLOOR - y(reached)} fill="currentColor" />
      )}
      {hurt === null ? null : (
        <circle className={styles.hurt} cx={x + WIDE / 2} cy={y(hurt)} r="5" />
      )}
      <line className={styles.floor} x1={x - 3} x2={x + WIDE + 3} y1={FLOOR} y2={FLOOR} />
    </g>
  );
}
