import type { Side } from "../../api/client";
import type { CourseEvent } from "../../api/course";
import { classes } from "../../components/base/classes";
import { useSize } from "../../components/base/useSize";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import { daysBetween } from "../../state/domain/day";
import { spanOf } from "../../state/domain/span";
import { dayWords } from "../../state/domain/wording";
import styles from "./athlete.module.css";
import type { AthleteParts } from "./parts";

const PAD = 28;
const SAYS = { injury: "injured", return: "return test", amended: "amended" } as const;

/** The newest of each kind by its name, with how many there are: more would lie over each other. */
function labelled(events: readonly CourseEvent[]) {
  return (["injury", "return", "amended"] as const).flatMap((kind) => {
    const own = events.filter((event) => event.kind === kind);
    const newest = own.reduce<CourseEvent | null>(
      (last, event) => (last && last.date > event.date ? last : event),
      null,
    );
    const times = own.length > 1 ? `, ${own.length} times` : "";
    return newest ? [{ event: newest, says: `${SAYS[kind]}${times}` }] : [];
  });
}

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
          {events.map((event) => (
            <path
              key={`${event.kind} ${event.date}`}
              className={styles[event.kind]}
              d={`M${at(event.date)} 22V56`}
            />
          ))}
          {labelled(events).map(({ event, says }, place) => (
            <text
              key={`${event.kind} ${event.date}`}
              className={styles.event}
              x={at(event.date)}
              y={14 + 13 * (place % 2)}
              textAnchor={at(event.date) > size.width / 2 ? "end" : "start"}
            >
              {says}
            </text>
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
