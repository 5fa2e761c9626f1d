import type { Measure, Step, Test } from "../../api/catalogue";
import { classes } from "../../components/classes";
import { DifferenceBar } from "../../components/DifferenceBar";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";
import { type Lane, lanesOf } from "../../state/fields";
import { kindOf } from "../../state/kinds";
import type { DialCode } from "../../state/parse";
import { type Instead, type Question, rowsOf, twinOf } from "../../state/questions";
import styles from "./bench.module.css";
import { ChoiceCell } from "./ChoiceCell";
import { NumberCell } from "./NumberCell";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  step: Step;
  instead: Instead;
  now: Question;
  dialOf: (question: Question) => DialCode | null;
  how: "mean" | "median" | undefined;
  onNow: (question: Question) => void;
  onAccept: () => void;
  onInstead: (base: string, code: string) => void;
}

/** One row a measure: value, name and difference, value. */
export function StepRows(props: Props) {
  return (
    <>
      {rowsOf(props.test, props.step, props.instead).map((measure) => (
        <MeasureRow key={measure.code} {...props} measure={measure} />
      ))}
    </>
  );
}

function MeasureRow(props: Props & { measure: Measure }) {
  const { bench, test, step, measure } = props;
  const { reading } = useStore(bench.state);
  const found = reading?.differences.find(
    (difference) => difference.test === test.code && difference.measure === measure.code,
  );
  const twin = twinOf(test, measure);
  const name = (
    <div className="spine">
      <strong>{measure.label}</strong>
      {found ? <DifferenceBar measure={measure} found={found} /> : null}
      {twin ? (
        <button
          type="button"
          className={styles["spine-link"]}
          onClick={() => props.onInstead(measure.instead_of ?? measure.code, twin.code)}
        >
          {twin.label}
        </button>
      ) : null}
    </div>
  );
  const cell = (side: Lane) => {
    const question: Question = { step: step.code, measure: measure.code, side };
    const own = { ...props, question, dial: props.dialOf(question) };
    return kindOf(measure).asked === "number" ? <NumberCell {...own} /> : <ChoiceCell {...own} />;
  };
  if (lanesOf(test, measure.code).includes(null)) {
    return (
      <div className={classes("lanes", styles["measure-row"], styles.whole)}>
        {name}
        <div className="whole-cell">{cell(null)}</div>
      </div>
    );
  }
  return (
    <div className={classes("lanes", styles["measure-row"])}>
      <div className="lane-left">{cell("left")}</div>
      {name}
      <div className="lane-right">{cell("right")}</div>
    </div>
  );
}
