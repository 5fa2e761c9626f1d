import type { Measure, Step, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { FIRST, laneOf, ofSide, SECOND } from "../../state/device/lanes";
import { valueField } from "../../state/domain/fields";
import { shownNumber, signed, unitOf } from "../../state/domain/parse";
import { measureOf } from "../../state/domain/questions";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";

const MOST_SHOWN = 2;
const SIDES: readonly Side[] = ["left", "right"];

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  steps: Step[];
  how: "mean" | "median" | undefined;
}

/** What the steps before gave, small, so that the eye can compare without going back. */
export function EarlierRows({ bench, test, entryKey, steps, how = "mean" }: Props) {
  useStore(bench.state);
  const said = (measure: Measure, side: Side): string | null => {
    const field = valueField(measure.code);
    const value = bench.value({ test: test.code, side, key: entryKey, field });
    const number = shownNumber(value, how);
    return number === null ? null : `${signed(number, measure)}${unitOf(measure)}`;
  };
  const rows = steps
    .flatMap((step) => step.measures.map((code) => measureOf(test, code)))
    .filter((measure) => measure.unit !== "1" && SIDES.some((side) => said(measure, side) !== null))
    .slice(-MOST_SHOWN);
  return (
    <>
      {rows.map((measure) => (
        <div key={measure.code} className={classes("lanes", styles["earlier-row"])}>
          <div className={classes(laneOf(FIRST), ofSide(FIRST))}>
            {said(measure, FIRST) ?? "not yet"}
          </div>
          <div className="spine muted">{measure.label}</div>
          <div className={classes(laneOf(SECOND), ofSide(SECOND))}>
            {said(measure, SECOND) ?? "not yet"}
          </div>
        </div>
      ))}
    </>
  );
}
