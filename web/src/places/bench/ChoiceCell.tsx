import type { KeyboardEvent } from "react";
import type { Measure, Test } from "../../api/catalogue";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { ofSide, SECOND } from "../../state/device/lanes";
import { type Json, type Lane, valueField } from "../../state/domain/fields";
import {
  afterTap,
  isChosen,
  isExpected,
  kindOf,
  type Option,
  optionsOf,
} from "../../state/domain/kinds";
import { isAsked, type Question } from "../../state/domain/questions";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";
import { byKeyboard, questionId } from "./focus";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  measure: Measure;
  called: string;
  question: Question;
  now: Question;
  onNow: (question: Question) => void;
  onAccept: () => void;
}

const SIDES: readonly Lane[] = ["left", "right"];
const WHOLE: readonly Lane[] = [null];

/** Grades, choices and yes or no: one tap each, a second tap takes it back. None of many is an answer. */
export function ChoiceCell(props: Props) {
  const { bench, test, entryKey, measure, called, question, now, onNow, onAccept } = props;
  useStore(bench.state);
  const field = valueField(measure.code);
  const place = { test: test.code, side: question.side, key: entryKey, field };
  const value = bench.value(place);
  const kind = kindOf(measure);
  // What is said of both at once and what is said of a side exclude each other.
  const opposite = measure.side_optional ? (question.side === null ? SIDES : WHOLE) : [];
  // What is asked of the person is written for both sides at once.
  const lanes: readonly Lane[] = measure.about_person ? SIDES : [question.side];
  const write = (next: Json) =>
    bench.write([
      ...lanes.map((side) => ({ ...place, side, value: next })),
      ...opposite
        .map((lane) => ({ ...place, side: lane, value: null }))
        .filter((other) => bench.value(other) !== null),
    ]);
  const isOn = (option: Option) => isChosen(kind, value, option);
  const next = (option: Option): Json => afterTap(kind, value, option);
  const pressed = (event: KeyboardEvent, option: Option) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    if (!isOn(option)) write(next(option));
    onAccept();
  };
  const side = question.side ?? "both";
  const active = isAsked(now, question);
  return (
    <fieldset
      id={questionId(question)}
      className={classes(
        styles["choice-cell"],
        ofSide(question.side),
        active ? "active" : "",
        measure.ladder && styles.ladder,
      )}
      aria-label={`${called}, ${side}`}
    >
      {optionsOf(measure).map((option, step) => (
        <button
          key={option.label}
          type="button"
          className={classes("plate", side)}
          aria-pressed={isOn(option)}
          data-expected={isExpected(measure, option) || undefined}
          onFocus={byKeyboard(() => onNow(question))}
          onKeyDown={(event) => pressed(event, option)}
          onClick={() => {
            onNow(question);
            write(next(option));
          }}
        >
          {measure.ladder ? <Shift step={step} side={side} /> : null}
          {option.label}
        </button>
      ))}
    </fieldset>
  );
}

const STEP_WIDE = 7;

/** A block that comes out from under another, further by each step, towards the lane's edge. */
function Shift({ step, side }: { step: number; side: string }) {
  const out = step * STEP_WIDE;
  const mirror = side === SECOND ? undefined : "translate(44 0) scale(-1 1)";
  return (
    <svg className={styles.shift} viewBox="0 0 44 26" aria-hidden="true" focusable="false">
      <g transform={mirror}>
        <rect x="3" y="2" width="18" height="11" rx="2" className={styles["shift-bone"]} />
        <rect x={3 + out} y="14" width="18" height="10" rx="2" fill="currentColor" />
      </g>
    </svg>
  );
}
