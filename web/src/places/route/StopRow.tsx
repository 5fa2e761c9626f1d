import { useSortable } from "@dnd-kit/sortable";
import type { CSSProperties } from "react";
import { Link } from "react-router";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { SideMark } from "../../components/marks/SideMark";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import { stepTo } from "../../state/domain/addresses";
import {
  clockWords,
  inOrder,
  moved,
  neighbour,
  type Placed,
  whyFor,
} from "../../state/screen/route";
import { LeaveOut } from "./LeaveOut";
import type { RouteProps } from "./props";
import styles from "./route.module.css";

interface Props extends RouteProps {
  placed: Placed;
  nameOf: (code: string) => string;
  /** Its tools stand open. */
  inHand: boolean;
  onHand: (test: string | null) => void;
}

/** One stop on the way; held on a side, a gate stands there. */
export function StopRow(props: Props) {
  const { screen, placed, nameOf, inHand, onHand } = props;
  const { stop, number, leads } = placed;
  const sortable = useSortable({ id: stop.test, disabled: !leads });
  const { transform, transition } = sortable;
  const style: CSSProperties = transform
    ? { transform: `translateY(${Math.round(transform.y)}px)`, transition }
    : {};
  const name = nameOf(stop.test);
  return (
    <li
      ref={leads ? sortable.setNodeRef : null}
      style={style}
      className={classes(styles.stop, sortable.isDragging && styles.carried)}
      data-turn={stop.turn || undefined}
      data-waits={stop.waits_for !== null || undefined}
      data-safety={stop.stage === "safety" || undefined}
      data-in-hand={(inHand && leads) || undefined}
    >
      <Why {...props} side={FIRST} />
      <div className={styles.on}>
        {leads ? (
          <button
            type="button"
            className={styles.bead}
            aria-label={`${number}. Carry ${name}`}
            {...sortable.attributes}
            {...sortable.listeners}
          >
            {number}
          </button>
        ) : (
          <span className={styles.bead}>{number}</span>
        )}
        <button
          type="button"
          className={styles.name}
          aria-expanded={inHand}
          onClick={() => onHand(inHand ? null : stop.test)}
        >
          <strong>{name}</strong>
          {stop.waits_for ? <small>waits until cleared</small> : null}
        </button>
        <span className={styles.time}>{clockWords(stop.seconds)}</span>
      </div>
      <Why {...props} side={SECOND} />
      {inHand && leads ? (
        <Tools {...props} name={name} to={stepTo(screen.record.id, "bench", stop.test)} />
      ) : null}
    </li>
  );
}

function Why({ placed, side, reasonsAfter, done }: Props & { side: Side }) {
  const { stop } = placed;
  const { says, compares } = whyFor(stop, side);
  const hidden = reasonsAfter && !done.has(stop.test);
  return (
    <div className={classes(laneOf(side), styles.why)} data-compares={compares || undefined}>
      {hidden ? (
        <span className="muted">why comes after</span>
      ) : (
        <>
          {says && !compares ? (
            <span className={styles["small-side"]}>
              <SideMark side={side} />{" "}
            </span>
          ) : null}
          {says}
        </>
      )}
    </div>
  );
}

function Tools({
  bench,
  route,
  planned,
  placed,
  name,
  to,
  onHand,
}: Props & { name: string; to: string }) {
  const { test } = placed.stop;
  const step = (way: 1 | -1) => {
    const other = neighbour(route, test, way);
    if (other) bench.write(inOrder(moved(route, test, other)));
  };
  const fixed = placed.stop.stage === "safety";
  return (
    <div className={styles.tools}>
      {([-1, 1] as const).map((way) => (
        <button
          key={way}
          type="button"
          className="plate"
          disabled={neighbour(route, test, way) === null}
          aria-label={`${way < 0 ? "Earlier" : "Later"}: ${name}`}
          onClick={() => step(way)}
        >
          {way < 0 ? "Earlier" : "Later"}
        </button>
      ))}
      <Link className={styles.go} to={to}>
        Go there
      </Link>
      <LeaveOut
        bench={bench}
        planned={planned}
        test={test}
        name={name}
        onDone={() => onHand(null)}
      />
      {fixed ? <p className="muted">A danger check: it stays before everything else.</p> : null}
    </div>
  );
}
