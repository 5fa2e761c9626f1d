import { useEffect } from "react";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { ofSide } from "../../state/device/lanes";
import { placeKey, valueField } from "../../state/domain/fields";
import { plain } from "../../state/domain/parse";
import { clock, hurtsNow, startOrStop, stopClock } from "./clock";
import styles from "./controls.module.css";
import { NumberCell, type NumberCellProps } from "./NumberCell";
import { tone } from "./tone";
import { useSeconds } from "./useSeconds";

/** A timed hold: one plate starts and stops, one marks when it hurts; the number can be typed as well. */
export function ClockCell(props: NumberCellProps) {
  const { bench, test, entryKey, measure, question, onNow } = props;
  const place = {
    test: test.code,
    side: question.side,
    key: entryKey,
    field: valueField(measure.code),
  };
  const running = useStore(clock);
  const mine = running !== null && placeKey(running.place) === placeKey(place);
  const seconds = useSeconds(mine);
  const target = measure.clock?.target ?? 0;
  const longest = measure.clock?.longest ?? 0;

  useEffect(() => {
    if (mine && seconds >= longest) stopClock(bench);
  }, [mine, seconds, longest, bench]);
  const reached = mine && seconds >= target;
  useEffect(() => {
    if (reached) tone();
  }, [reached]);

  const side = question.side ?? "both";
  return (
    <div className={classes(styles.timed, ofSide(question.side))}>
      {mine ? (
        <output className={classes(styles.running, ofSide(question.side))}>
          {plain(seconds)} s
        </output>
      ) : (
        <NumberCell {...props} />
      )}
      <div className={styles.plates}>
        <button
          type="button"
          className={classes("plate", side)}
          aria-label={`Hurts now, ${side}`}
          onClick={() => hurtsNow(bench, place, measure)}
        >
          Hurts now
        </button>
        <button
          type="button"
          className={classes("plate", side, styles.wide)}
          aria-label={`${mine ? "Stop" : `Start, hold for ${target} s`}, ${side}`}
          aria-pressed={mine}
          onClick={() => {
            onNow(question);
            startOrStop(bench, place, measure);
          }}
        >
          {mine ? "Stop" : `Start, hold for ${target} s`}
        </button>
      </div>
    </div>
  );
}
