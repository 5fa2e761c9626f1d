import type { KeyboardEvent } from "react";
import type { Measure, Test } from "../../api/catalogue";
import { classes } from "../../components/classes";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";
import { type Json, type Lane, valueField } from "../../state/fields";
import { afterTap, isChosen, isExpected, kindOf, type Option, optionsOf } from "../../state/kinds";
import type { Question } from "../../state/questions";
import styles from "./bench.module.css";
import { questionId } from "./focus";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  measure: Measure;
  question: Question;
  now: Question;
  onNow: (question: Question) => void;
  onAccept: () => void;
}

const SIDES: readonly Lane[] = ["left", "right"];
const WHOLE: readonly Lane[] = [null];

/** Grades, choices and yes or no: one tap each, a second tap takes it back. None of many is an answer. */
export function ChoiceCell(props: Props) {
  const { bench, test, entryKey, measure, question, now, onNow, onAccept } = props;
  useStore(bench.state);
  const field = valueField(measure.code);
  const place = { test: test.code, side: question.side, key: entryKey, field };
  const value = bench.value(place);
  const kind = kindOf(measure);
  // What is said of both at once and what is said of a side exclude each other.
  const opposite = measure.side_optional ? (question.side === null ? SIDES : WHOLE) : [];
  const write = (next: Json) =>
    bench.write([
      { ...place, value: next },
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
  const active = now.measure === question.measure && now.side === question.side;
  return (
    <fieldset
      id={questionId(question)}
      className={classes(styles["choice-cell"], side, active ? "active" : "")}
      aria-label={`${measure.label}, ${side}`}
    >
      {optionsOf(measure).map((option) => (
        <button
          key={option.label}
          type="button"
          className={classes("plate", side)}
          aria-pressed={isOn(option)}
          data-expected={isExpected(measure, option) || undefined}
          onFocus={() => onNow(question)}
          onKeyDown={(event) => pressed(event, option)}
          onClick={() => write(next(option))}
        >
          {option.label}
        </button>
      ))}
    </fieldset>
  );
}
