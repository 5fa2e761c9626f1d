import { useQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef } from "react";
import type { Athlete } from "../../api/athletes";
import { catalogueQuery } from "../../api/catalogue";
import type { Schema, Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { useToday } from "../../components/base/session";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { SideMark } from "../../components/marks/SideMark";
import { Tally } from "../../components/marks/Tally";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import { ageOn, dayWords, readable } from "../../state/domain/wording";
import styles from "./people.module.css";

interface Props {
  athletes: Athlete[] | undefined;
  total: number;
  error: unknown;
  filtered: boolean;
  chosen: string | null;
  onChoose: (id: string) => void;
  /** The end of what is loaded came into sight. */
  onEnd: () => void;
}

const ROW_PX = 68;
const BEYOND = 8;

/** Two lanes and a spine for every athlete: flags left, name, flags right. Only what is in sight is drawn. */
export function PeopleList(props: Props) {
  const { athletes, total, error, filtered } = props;
  if (error && !athletes) return <ProblemNote error={error} />;
  if (!athletes) return <p className="p-3 muted">Opening</p>;
  if (athletes.length === 0) {
    return (
      <p className="p-3 muted">
        {filtered
          ? "Nobody fits. Change the search or the squad."
          : "Nobody here yet. Add an athlete."}
      </p>
    );
  }
  const count = `${total.toLocaleString("en-GB")} ${total === 1 ? "athlete" : "athletes"}`;
  return (
    <div className={styles["people-list"]}>
      <div className={classes("lanes", styles["people-head"])}>
        <div className={laneOf(FIRST)}>
          <SideMark side={FIRST} /> {FIRST}
        </div>
        <div className="spine">
          {athletes.length < total ? `${athletes.length} of ${count}` : count}
        </div>
        <div className={laneOf(SECOND)}>
          {SECOND} <SideMark side={SECOND} />
        </div>
      </div>
      <Rows {...props} athletes={athletes} />
    </div>
  );
}

function Rows({ athletes, chosen, onChoose, onEnd, total }: Props & { athletes: Athlete[] }) {
  const frame = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: athletes.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_PX,
    overscan: BEYOND,
    getItemKey: (place) => athletes[place]?.id ?? place,
  });
  const drawn = rows.getVirtualItems();
  const last = drawn.at(-1)?.index ?? 0;
  const more = athletes.length < total;
  useEffect(() => {
    if (more && last >= athletes.length - 1 - BEYOND) onEnd();
  }, [more, last, athletes.length, onEnd]);
  return (
    <div ref={frame} className={styles["people-rows"]}>
      <ul style={{ height: rows.getTotalSize() }}>
        {drawn.map((row) => {
          const athlete = athletes[row.index];
          if (!athlete) return null;
          return (
            <li
              key={row.key}
              ref={rows.measureElement}
              data-index={row.index}
              style={{ transform: `translateY(${row.start}px)` }}
            >
              <PersonRow athlete={athlete} chosen={athlete.id === chosen} onChoose={onChoose} />
            </li>
          );
        })}
      </ul>
    </div>
  );
}

interface RowProps {
  athlete: Athlete;
  chosen: boolean;
  onChoose: (id: string) => void;
}

function PersonRow({ athlete, chosen, onChoose }: RowProps) {
  const age = ageOn(athlete.birth_date, useToday());
  return (
    <button
      type="button"
      className={classes("lanes", styles.person)}
      aria-pressed={chosen}
      onClick={() => onChoose(athlete.id)}
    >
      <span className={laneOf(FIRST)}>
        <LaneFlags athlete={athlete} side={FIRST} />
      </span>
      <span className="spine">
        <strong>{athlete.name}</strong>
        <span className="muted small">
          {[athlete.ref, age, athlete.sport]
            .filter((part) => part !== null && part !== "")
            .join(" · ")}
        </span>
      </span>
      <span className={laneOf(SECOND)}>
        <LaneFlags athlete={athlete} side={SECOND} />
      </span>
    </button>
  );
}

function LaneFlags({ athlete, side }: { athlete: Athlete; side: Side }) {
  const names = useQuery(catalogueQuery).data?.flag_names ?? {};
  const screen = athlete.last_screen;
  if (!screen) return <span className="muted">not screened</span>;
  if (screen.reading === "unreadable") {
    return <span className="fault">cannot be read: open it</span>;
  }
  const flags = screen.flags.filter((flag) => flag.side === side || flag.side === null);
  const waiting = screen.reading === "waiting";
  if (flags.length === 0) {
    return <span className="muted">{waiting ? "being read" : silence(screen)}</span>;
  }
  return (
    <>
      {flags.slice(0, 2).map((flag) => (
        <span key={flag.code} className="lane-flag">
          <Tally strength={flag.strength} word={false} />{" "}
          {names[flag.code] ?? readable(flag.code.replace(".", " "))}
        </span>
      ))}
      {flags.length > 2 ? <span className="muted">and {flags.length - 2} more</span> : null}
      {waiting ? <span className="muted">being read again</span> : null}
    </>
  );
}

/** An empty lane is never silent. */
const silence = (screen: Schema["LastScreen"]): string =>
  screen.state === "open" ? `open since ${dayWords(screen.date)}` : "no flag";
