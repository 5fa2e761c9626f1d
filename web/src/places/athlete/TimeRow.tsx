import type { Side } from "../../api/client";
import { classes } from "../../components/classes";
import { useSize } from "../../components/useSize";
import { daysBetween } from "../../state/day";
import { FIRST, laneOf, SECOND } from "../../state/lanes";
import { dayWords } from "../../state/wording";
import styles from "./athlete.module.css";
import type { AthleteParts } from "./parts";
import { spanOf } from "./span";

const PAD = 28;
// Where labels side by side would lie over each other.
const NARROW = 300;
const SAYS = { injury: "injured", return: "tested for return" } as const;

/** When they were looked at, and what happened: an injury and a return only in their own lane. */
export function TimeRow({ course, today }: AthleteParts) {
  const { frame, size } = useSize<HTMLDivElement>();
  const [first, last] = spanOf(course, today);
  const whole = Math.max(daysBetween(first, last), 1);
  const at = (day: string) =>
    PAD + (Math.max(daysBetween(first, day), 0) / whole) * Math.max(size.width - 2 * PAD, 1);
  const lane = (side: Side) => {
    const events = course.events.filter((event) => event.side === side || event.side === null);
    return (
      <div
        ref={side === "left" ? frame : undefined}
        className={classes(laneOf(side), styles.time, side)}
      >
        <svg width={size.width} height="56" aria-hidden="true" focusable="false">
          <path className={styles.axis} d={`M${PAD} 40H${size.width - PAD}`} />
          {course.screens.map((screen) => (
            <path key={screen.id} className={styles.axis} d={`M${at(screen.date)} 33V47`} />
          ))}
          {events.map((event, place) => (
            <g key={`${event.kind} ${event.date}`}>
              <path className={styles[event.kind]} d={`M${at(event.date)} 22V56`} />
              <text
                className={styles.event}
                x={at(event.date)}
                y={size.width < NARROW ? 14 + 13 * (place % 2) : 17}
                textAnchor={at(event.date) > size.width / 2 ? "end" : "start"}
              >
                {SAYS[event.kind]}
              </text>
            </g>
          ))}
        </svg>
        <ul className="only-read-aloud">
          {events.map((event) => (
            <li key={`${event.kind} ${event.date}`}>
              {SAYS[event.kind]} {dayWords(event.date)}
              {event.side ? "" : ", side not said"}
            </li>
          ))}
        </ul>
      </div>
    );
  };
  const count = course.screens.length;
  return (
    <div className={classes("lanes", styles.row)}>
      {lane(FIRST)}
      <div className="spine">
        <span className="muted">
          {count} {count === 1 ? "screen" : "screens"}, {dayWords(first)} to {dayWords(last)}
        </span>
      </div>
      {lane(SECOND)}
    </div>
  );
}
