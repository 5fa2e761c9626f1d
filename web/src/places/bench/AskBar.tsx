import { useEffect, useState } from "react";
import type { Measure, Test } from "../../api/catalogue";
import { classes } from "../../components/base/classes";
import { ofSide } from "../../state/device/lanes";
import { say } from "../../state/device/speech";
import { kindOf } from "../../state/domain/kinds";
import type { DialCode } from "../../state/domain/parse";
import { measureOf, type Question } from "../../state/domain/questions";
import { signWords } from "../../state/domain/wording";
import layout from "./layout.module.css";

interface Props {
  test: Test;
  question: Question;
  /** Which bone, toe, space or position, in words. */
  of: string;
  /** What the other side has, in words. */
  beside: string;
  dial: DialCode | null;
  onDial: (dial: DialCode | null) => void;
}

const DIALS: readonly (readonly [DialCode | "", string])[] = [
  ["", "I say the angle"],
  ["zero_neutral", "dial: 0 at neutral"],
  ["ninety_neutral", "dial: 90 at neutral"],
  ["one_eighty_neutral", "dial: 180 at neutral"],
];

/** What is asked now, in the side's colour, and how the sign goes. */
export function AskBar({ test, question, of, beside, dial, onDial }: Props) {
  const measure = measureOf(test, question.measure);
  const asked = of ? `${of}: ${askWords(test, measure)}` : askWords(test, measure);
  const spoken = question.side ? `${question.side}, ${asked}` : asked;
  useEffect(() => say(spoken), [spoken]);
  const sign = dial ? "type what the dial shows, then say which way" : signWords(measure);
  return (
    <div className={layout["ask-top"]}>
      <div className={classes(layout["ask-bar"], ofSide(question.side))}>
        <strong aria-live="polite">
          {question.side ? (
            <span className={layout["ask-side"]}>
              {question.side.toUpperCase()}
              <span className={layout["ask-comma"]}>, </span>
            </span>
          ) : null}
          <span className={layout["ask-words"]}>{asked}</span>
        </strong>
        {measure.watch ? <Watched of={measure.watch} /> : null}
        {question.side ? <span className={layout["ask-beside"]}>{beside}</span> : null}
      </div>
      {sign || kindOf(measure).dial ? (
        <div className={layout["ask-how"]}>
          <span>{sign}</span>
          {kindOf(measure).dial ? (
            <DialChoice measure={measure} dial={dial} onDial={onDial} />
          ) : null}
        </div>
      ) : null}
    </div>
  );
}

/** Where two measures of a test are asked alike, the name says which. */
function askWords(test: Test, measure: Measure): string {
  const map = test.steps.find((step) => step.map?.measures.includes(measure.code))?.map;
  if (map) return test.key ? map.ask : `${measure.label}: ${map.ask}`;
  if (measure.kind === "flag") {
    return measure.ask === "yes or no" ? `${measure.label}?` : `${measure.label}? ${measure.ask}`;
  }
  const alike = test.measures.filter((each) => each.ask === measure.ask);
  return alike.length > 1 ? `${measure.label.toLowerCase()}: ${measure.ask}` : measure.ask;
}

/** How long the eye has been on it, since it was asked. */
function Watched({ of }: { of: number }) {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    const began = performance.now();
    const timer = setInterval(
      () => setSeconds(Math.floor((performance.now() - began) / 1000)),
      500,
    );
    return () => clearInterval(timer);
  }, []);
  return (
    <span className={layout["ask-beside"]} role="timer">
      watched {seconds} of {of} s
    </span>
  );
}

interface DialProps {
  measure: Measure;
  dial: DialCode | null;
  onDial: (dial: DialCode | null) => void;
}

function DialChoice({ measure, dial, onDial }: DialProps) {
  return (
    <select
      aria-label={`How ${measure.label} is read`}
      value={dial ?? ""}
      onChange={(event) => onDial((event.target.value || null) as DialCode | null)}
    >
      {DIALS.map(([code, says]) => (
        <option key={code} value={code}>
          {says}
        </option>
      ))}
    </select>
  );
}
