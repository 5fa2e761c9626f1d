import type { KeyboardEvent } from "react";
import type { Measure, Test } from "../../api/catalogue";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";
import { type Json, valueField } from "../../state/fields";
import type { Question } from "../../state/questions";
import { questionId } from "./focus";

interface Props {
  bench: Bench;
  test: Test;
  measure: Measure;
  question: Question;
  now: Question;
  onNow: (question: Question) => void;
  onAccept: () => void;
}

interface Option {
  label: string;
  value: Json;
}

const STRENGTH_GRADES = "0 1- 1 1+ 2- 2 2+ 3- 3 3+ 4- 4 4+ 5- 5".split(" ");

function optionsOf(measure: Measure): Option[] {
  switch (measure.kind) {
    case "grade": {
      if (measure.allowed.length > 0) {
        return measure.allowed.map((value) => ({ label: String(value), value }));
      }
      const [low, high] = measure.plausible ?? [0, 0];
      const count = Math.round(Number(high) - Number(low)) + 1;
      return Array.from({ length: count }, (_, step) => {
        const value = Number(low) + step;
        return { label: String(value), value };
      });
    }
    case "flag":
      return [
        { label: "Yes", value: true },
        { label: "No", value: false },
      ];
    case "strength":
      return STRENGTH_GRADES.map((grade) => ({ label: grade.replace("-", "−"), value: grade }));
    default:
      return measure.choices.map((choice) => ({ label: choice.label, value: choice.code }));
  }
}

/** Grades, choices and yes or no: one tap each, a second tap takes it back. */
export function ChoiceCell({ bench, test, measure, question, now, onNow, onAccept }: Props) {
  useStore(bench.state);
  const place = { test: test.code, side: question.side, field: valueField(measure.code) };
  const value = bench.value(place);
  const many = measure.kind === "choices";
  const held = Array.isArray(value) ? value : [];
  const isOn = (option: Option) => (many ? held.includes(option.value) : value === option.value);
  const next = (option: Option): Json => {
    if (!many) return isOn(option) ? null : option.value;
    return isOn(option) ? held.filter((code) => code !== option.value) : [...held, option.value];
  };
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
      className={`choice-cell ${side} ${active ? "active" : ""}`}
      aria-label={`${measure.label}, ${side}`}
    >
      {optionsOf(measure).map((option) => (
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
