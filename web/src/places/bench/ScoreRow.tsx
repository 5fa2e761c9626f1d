import type { Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { FIRST, laneOf, ofSide, SECOND } from "../../state/device/lanes";
import { valueField } from "../../state/domain/fields";
import { plain } from "../../state/domain/parse";
import type { Bench } from "../../state/screen/bench";
import { scored } from "./score";
import styles from "./score.module.css";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
}

/** What the points come to so far, what is still open, and where they can end. */
export function ScoreRow({ bench, test, entryKey }: Props) {
  useStore(bench.state);
  const { score } = test;
  if (!score) return null;
  const lane = (side: Side) => {
    const found = scored(score, test.measures, (measure) =>
      bench.value({ test: test.code, side, key: entryKey, field: valueField(measure) }),
    );
    return (
      <div className={classes(laneOf(side), styles.score, ofSide(side))}>
        <output className={styles.total} aria-label={`${score.label} so far, ${side}`}>
          {plain(found.total)}
        </output>
        <span className="muted small">
          {found.open > 0
            ? `${found.open} unanswered, can end ${plain(found.lowest)} to ${plain(found.highest)}`
            : "all answered"}
        </span>
      </div>
    );
  };
  return (
    <div className="lanes">
      {lane(FIRST)}
      <div className="spine">
        <strong>{score.label}</strong>
        <span className="muted small">{score.source}</span>
      </div>
      {lane(SECOND)}
    </div>
  );
}
