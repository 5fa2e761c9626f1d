import type { ComponentType } from "react";
import type { Measure, Step, Test } from "../../api/catalogue";
import { classes } from "../../components/base/classes";
import { part } from "../../components/base/part";
import { useStore } from "../../components/base/useStore";
import { DifferenceBar } from "../../components/marks/DifferenceBar";
import { FIRST, laneOf, ofSide, SECOND } from "../../state/device/lanes";
import { type Lane, lanesOf, valueField } from "../../state/domain/fields";
import { type Control, controlOf } from "../../state/domain/kinds";
import { torque } from "../../state/domain/measures";
import { type DialCode, plain, shownNumber } from "../../state/domain/parse";
import {
  type Instead,
  type Key,
  type Question,
  rowsOf,
  standsFor,
  twinOf,
} from "../../state/domain/questions";
import { SIDE_LETTER } from "../../state/domain/wording";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";
import { ChoiceCell } from "./ChoiceCell";
import { ClockCell } from "./ClockCell";
import { CounterCell } from "./CounterCell";
import controls from "./controls.module.css";
import { LooksFull } from "./LooksFull";
import { NumberCell, type NumberCellProps } from "./NumberCell";
import { PointsCell } from "./PointsCell";
import { SpineRuler } from "./SpineRuler";

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
  points: PointsCell,
  number: NumberCell,
  one: ChoiceCell,
  many: ChoiceCell,
};

// What grows on one scale in the spine.
const RULED: ReadonlySet<Control> = new Set(["clock", "counter"]);

interface Props {
  bench: Bench;
  test: Test;
  keys: readonly Key[];
  step: Step;
  instead: Instead;
  now: Question;
  dialOf: (question: Question) => DialCode | null;
  how: "mean" | "median" | undefined;
  onNow: (question: Question) => void;
  onAccept: () => void;
  onInstead: (base: string, code: string) => void;
}

const { Place: SpotsRow } = part(
  () => import("./SpotsRow"),
  () => <p className="muted">Fetching the drawing.</p>,
);

/** One row a measure: value, name and difference, value. Of a keyed test each key has its own. */
export function StepRows({ keys, ...props }: Props) {
  const onMap = props.step.map?.measures ?? [];
  const all = rowsOf(props.test, props.step, props.instead);
  const rows = all.filter((measure) => !onMap.includes(measure.code));
  const below = keys.flatMap(({ key, label }) =>
    rows.map((measure) => (
      <MeasureRow
        key={`${key} ${measure.code}`}
        {...props}
        entryKey={key}
        measure={measure}
        called={rowName(label, measure, rows.length)}
      />
    )),
  );
  return (
    <>
      {props.step.map ? <SpotsRow {...props} keys={keys} /> : null}
      {below}
    </>
  );
}

/** The key names the row; where it has several, the measure as well. */
const rowName = (key: string, measure: Measure, rows: number): string =>
  key === "" ? measure.label : rows === 1 ? key : `${key}: ${measure.label.toLowerCase()}`;

interface RowProps extends Omit<Props, "keys"> {
  measure: Measure;
  entryKey: string;
  called: string;
}

function MeasureRow(props: RowProps) {
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
      <strong>{props.called}</strong>
      {found ? <DifferenceBar measure={measure} found={found} /> : null}
      {RULED.has(controlOf(measure)) && !lanesOf(test, measure.code).includes(null) ? (
        <SpineRuler bench={bench} measure={measure} place={place} />
      ) : null}
      {measure.lever ? <Torque {...props} /> : null}
      {measure.looks_full ? (
        <LooksFull bench={bench} places={[place("left"), place("right")]} says="Both look full" />
      ) : null}
      {twin ? (
        <button
          type="button"
          className={styles["spine-link"]}
          onClick={() => props.onInstead(standsFor(measure) ?? measure.code, twin.code)}
        >
          {twin.label}
        </button>
      ) : null}
    </div>
  );
  const cell = (side: Lane) => {
    const question: Question = {
      step: step.code,
      measure: measure.code,
      side,
      key: props.entryKey,
    };
    const own = { ...props, question, dial: props.dialOf(question) };
    const Cell = CELLS[controlOf(measure)];
    if (!measure.looks_full) return <Cell {...own} />;
    return (
      <div className={classes(controls.timed, ofSide(side))}>
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
            <div className={laneOf(FIRST)}>{cell(FIRST)}</div>
            <div className="spine">
              <span className="muted">or on one side</span>
            </div>
            <div className={laneOf(SECOND)}>{cell(SECOND)}</div>
          </div>
        ) : null}
      </>
    );
  }
  return (
    <div className={classes("lanes", styles["measure-row"])}>
      <div className={laneOf(FIRST)}>{cell(FIRST)}</div>
      {name}
      <div className={laneOf(SECOND)}>{cell(SECOND)}</div>
    </div>
  );
}

/** Force times lever, where both are known: sides are compared by it. */
function Torque({ bench, test, entryKey, measure, how }: RowProps) {
  const said = (["left", "right"] as const).map((side) => {
    const number = (code: string) =>
      shownNumber(
        bench.value({ test: test.code, side, key: entryKey, field: valueField(code) }),
        how ?? "mean",
      );
    const found = torque(number(measure.code), measure.lever ? number(measure.lever) : null);
    return found === null ? null : `${SIDE_LETTER[side]} ${plain(found)} Nm`;
  });
  const known = said.filter((words) => words !== null);
  return known.length > 0 ? <span className="small">torque {known.join(", ")}</span> : null;
}
