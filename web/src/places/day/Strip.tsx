import type { CSSProperties } from "react";
import { classes } from "../../components/base/classes";
import { atPercent, type Running, wordsAt } from "../../state/domain/day";
import styles from "./day.module.css";

/** A stretch between two posts, or a line to a last day; a tick where it is booked; in words as well. */
export function Strip({ running }: { running: Running }) {
  const { kind, from, to, booked, words, action } = running;
  const side = action.standing.side;
  const last = to ?? 0;
  const [start, end] = [atPercent(from), atPercent(last + 1)];
  const today = atPercent(0);
  const room = wordsAt(Math.max(end, booked === null ? 0 : atPercent(booked + 1)));
  return (
    <div className={classes(styles.strip, side && styles[side])}>
      <i className={styles.today} style={span(today, atPercent(1))} />
      {to !== null && last < 0 ? <i className={styles.dots} style={span(end, today)} /> : null}
      {kind === "again" ? (
        <>
          <i className={styles.stretch} style={span(start, end)} />
          {from <= 0 && last >= 0 ? <i className={styles.left} style={span(today, end)} /> : null}
        </>
      ) : (
        <i
          className={styles["line-to"]}
          data-open={to === null || undefined}
          style={span(start, to === null ? atPercent(1) : end)}
        />
      )}
      {booked === null ? null : (
        <i
          className={styles.tick}
          style={{ left: `${(atPercent(booked) + atPercent(booked + 1)) / 2}%` }}
        >
          ✓
        </i>
      )}
      <span
        className={styles.words}
        data-over={room.over || undefined}
        style={{ left: `${room.at}%` }}
      >
        {words}
      </span>
    </div>
  );
}

const span = (from: number, to: number): CSSProperties => ({
  left: `${from}%`,
  width: `${Math.max(to - from, 0.6)}%`,
});
