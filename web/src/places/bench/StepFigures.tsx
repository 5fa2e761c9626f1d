import type { Step, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { classes } from "../../components/classes";
import { FigureView } from "../../components/FigureView";
import { SideMark } from "../../components/SideMark";
import { useStore } from "../../components/useStore";
import { FIGURES } from "../../figures";
import type { Bench } from "../../state/bench";
import { valueField } from "../../state/fields";
import { parseTrials, shownNumber } from "../../state/parse";
import styles from "./bench.module.css";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  step: Step;
  how: "mean" | "median" | undefined;
}

/** The same drawing in both lanes, moved by what is typed. */
export function StepFigures({ bench, test, entryKey, step, how = "mean" }: Props) {
  useStore(bench.state);
  const drawn = step.figure && FIGURES[step.figure.kind];
  const lane = (side: Side) => (
    <div className={classes(`lane-${side}`, styles["figure-lane"])}>
      <SideMark side={side} large />
      {drawn ? (
        <FigureView
          test={test}
          step={step}
          side={side}
          numbers={numbersOf(bench, test, side, entryKey, how)}
        />
      ) : null}
    </div>
  );
  return (
    <div className={classes("lanes", drawn && styles.figures)} data-figures>
      {lane("left")}
      <div className="spine muted">
        {drawn ? (
          <>
            <span>shaded: usual</span>
            <span>dashed: zero</span>
          </>
        ) : null}
      </div>
      {lane("right")}
    </div>
  );
}

/** What is being typed moves the figure already. */
function numbersOf(bench: Bench, test: Test, side: Side, key: string, how: "mean" | "median") {
  const numbers: Record<string, number | null> = {};
  for (const measure of test.measures) {
    const place = { test: test.code, side, key, field: valueField(measure.code) };
    const draft = bench.draft(place);
    const parsed = parseTrials(draft.text, draft.dial);
    const fine = parsed.kind === "value" && !bench.problem(place);
    numbers[measure.code] = fine ? shownNumber(parsed.value, how) : null;
  }
  return numbers;
}
