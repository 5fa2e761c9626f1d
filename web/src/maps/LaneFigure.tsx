import type { Side } from "../api/client";
import { classes } from "../components/base/classes";
import { Figure } from "../figures/Figure";
import { figureNumbers, type Ground, type Recorded } from "../state/domain/ledger";
import { FoundMap } from "./FoundMap";
import styles from "./lane-figure.module.css";

interface Props {
  ground: Ground;
  side: Side;
  own: Recorded;
  how: "mean" | "median";
}

/** What was measured or found, drawn, facing the spine: the same drawing in both lanes. */
export function LaneFigure({ ground, side, own, how }: Props) {
  const { test, step, onMap } = ground;
  if (onMap) {
    return (
      <div className={classes(styles.figure, styles.found, side)}>
        <FoundMap measure={onMap} side={side} values={own.values} />
      </div>
    );
  }
  if (!step) return null;
  return (
    <div className={classes(styles.figure, side)}>
      <Figure test={test} step={step} side={side} numbers={figureNumbers(test, own, how)} />
    </div>
  );
}
