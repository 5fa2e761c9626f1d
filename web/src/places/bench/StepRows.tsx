import type { ComponentType } from "react";
import type { Measure, Step, Test } from "../../api/catalogue";
import { classes } from "../../components/classes";
import { DifferenceBar } from "../../components/DifferenceBar";
import { part } from "../../components/part";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";
import { type Lane, lanesOf, valueField } from "../../state/fields";
import { type Control, controlOf } from "../../state/kinds";
import type { DialCode } from "../../state/parse";
import { type Instead, type Question, rowsOf, twinOf } from "../../state/questions";
import styles from "./bench.module.css";
import { ChoiceCell } from "./ChoiceCell";
import { ClockCell } from "./ClockCell";
import { CounterCell } from "./CounterCell";
import controls from "./controls.module.css";
import { LooksFull } from "./LooksFull";
import { NumberCell, type NumberCellProps } from "./NumberCell";

// The drawings come when a test asks on one.
const { Place: MapRow } = part(
  () => import("./MapRow"),
  () => <p className="muted">Fetching the drawing.</p>,
);

const CELLS: Record<Control, ComponentType<NumberCellProps>> = {
  map: ChoiceCell,
  clock: ClockCell,
  counter: CounterCell,
  tally: ChoiceCell,
  number: NumberCell,
  one: ChoiceCell,
  many: ChoiceCell,
};

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
  const place = (side: Lane) => ({
    test: test.code,
    side,
    key: props.entryKey,
    field: valueField(measure.code),
  });
  const name = (
    <div className="spine">
      <strong>{measure.label}</strong>
      {found ? <DifferenceBar measure={measure} found={found} /> : null}
      {measure.looks_full ? (
        <LooksFull bench={bench} places={[place("left"), place("right")]} says="Both look full" />
      ) : null}
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
    const Cell = CELLS[controlOf(measure)];
    if (!measure.looks_full) return <Cell {...own} />;
    return (
      <div className={classes(controls.timed, side ?? "both")}>
        <Cell {...own} />
        <LooksFull bench={bench} places={[place(side)]} says="Looks full" />
      </div>
    );
  };
  if (controlOf(measure) === "map") {
    return <MapRow {...props} step={step.code} measure={measure} />;
  }
  if (lanesOf(test, measure.code).includes(null)) {
    return (
      <>
        <div className={classes("lanes", styles["measure-row"], styles.whole)}>
          {name}
          <div className="whole-cell">{cell(null)}</div>
        </div>
        {measure.side_optional ? (
          <div className={classes("lanes", styles["measure-row"])}>
            <div className="lane-left">{cell("left")}</div>
            <div className="spine">
              <span className="muted">or on one side</span>
            </div>
            <div className="lane-right">{cell("right")}</div>
          </div>
        ) : null}
      </>
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
