import type { KeyboardEvent } from "react";
import type { Measure, Test } from "../../api/catalogue";
import { classes } from "../../components/classes";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";
import { type Json, valueField } from "../../state/fields";
import { afterTap, isChosen, kindOf, type Option } from "../../state/kinds";
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

/** Grades, choices and yes or no: one tap each, a second tap takes it back. None of many is an answer. */
export function ChoiceCell(props: Props) {
  const { bench, test, entryKey, measure, question, now, onNow, onAccept } = props;
  useStore(bench.state);
  const field = valueField(measure.code);
  const place = { test: test.code, side: question.side, key: entryKey, field };
  const value = bench.value(place);
  const kind = kindOf(measure);
  const isOn = (option: Option) => isChosen(kind, value, option);
  const next = (option: Option): Json => afterTap(kind, value, option);
  const pressed = (event: KeyboardEvent, option: Option) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    if (!isOn(option)) bench.write([{ ...place, value: next(option) }]);
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
      {kind.options(measure).map((option) => (
        <button
          key={option.label}
          type="button"
          aria-pressed={isOn(option)}
          onFocus={() => onNow(question)}
          onKeyDown={(event) => pressed(event, option)}
          onClick={() => bench.write([{ ...place, value: next(option) }])}
        >
          {option.label}
        </button>
      ))}
    </fieldset>
  );
}
