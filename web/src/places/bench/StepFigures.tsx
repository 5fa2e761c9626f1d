import type { Measure, Step, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { SideMark } from "../../components/marks/SideMark";
import { Figure } from "../../figures/Figure";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import { valueField } from "../../state/domain/fields";
import { parseTrials, shownNumber } from "../../state/domain/parse";
import type { Bench } from "../../state/screen/bench";
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
  // A drawing that is answered on stands for the figure.
  const onMap =
    step.map !== null || test.measures.some((m) => m.map && step.measures.includes(m.code));
  const drawn = step.figure !== null && !onMap;
  const moves = Object.values(step.figure?.joints ?? {}).flat();
  const angled = drawn
    ? test.measures.filter(({ code, unit }) => moves.includes(code) && unit === "deg")
    : [];
  const lane = (side: Side) => (
    <div className={classes(laneOf(side), styles["figure-lane"])}>
      <SideMark side={side} large />
      {drawn ? (
        <Figure
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
      {lane(FIRST)}
      <div className="spine muted">
        {angled.some(shaded) ? <span>shaded: usual</span> : null}
        {angled.length > 0 ? <span>dashed: zero</span> : null}
      </div>
      {lane(SECOND)}
    </div>
  );
}

const shaded = (measure: Measure) => measure.usual !== null || measure.usual_adult !== null;

/** What is being typed moves the figure already. */
function numbersOf(bench: Bench, test: Test, side: Side, key: string, how: "mean" | "median") {
  const numbers: Record<string, number | null> = {};
  for (const measure of test.measures) {
    const place = { test: test.code, side, key, field: valueField(measure.code) };
    const draft = bench.draft(place);
    const parsed = parseTrials(draft.text, draft.dial, draft.unit);
    const fine = parsed.kind === "value" && !bench.problem(place);
    numbers[measure.code] = fine ? shownNumber(parsed.value, how) : null;
  }
  return numbers;
}
