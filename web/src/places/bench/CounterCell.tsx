import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { ofSide } from "../../state/device/lanes";
import { valueField } from "../../state/domain/fields";
import styles from "./controls.module.css";
import { countOne } from "./counting";
import { NumberCell, type NumberCellProps } from "./NumberCell";

/** Repeats counted as they happen: one plate adds one, one takes it back. */
export function CounterCell(props: NumberCellProps) {
  const { bench, test, entryKey, measure, question, onNow } = props;
  useStore(bench.state);
  const field = valueField(measure.code);
  const place = { test: test.code, side: question.side, key: entryKey, field };
  const side = question.side ?? "both";
  const step = (by: 1 | -1) => {
    onNow(question);
    countOne(bench, place, measure, by);
  };
  return (
    <div className={classes(styles.timed, ofSide(question.side))}>
      <NumberCell {...props} />
      <div className={styles.plates}>
        <button
          type="button"
          className={classes("plate", side)}
          aria-label={`−1, one less, ${side}`}
          onClick={() => step(-1)}
        >
          −1
        </button>
        <button
          type="button"
          className={classes("plate", side, styles.wide)}
          aria-label={`+1, one more, ${side}`}
          onClick={() => step(1)}
        >
          +1
        </button>
      </div>
    </div>
  );
}
