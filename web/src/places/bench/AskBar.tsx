import type { Test } from "../../api/catalogue";
import { classes } from "../../components/classes";
import { kindOf } from "../../state/kinds";
import type { DialCode } from "../../state/parse";
import { measureOf, type Question } from "../../state/questions";
import { signWords } from "../../state/wording";
import styles from "./bench.module.css";

interface Props {
  test: Test;
  question: Question;
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
export function AskBar({ test, question, dial, onDial }: Props) {
  const measure = measureOf(test, question.measure);
  const sign = dial ? "type what the dial shows, then say which way" : signWords(measure);
  return (
    <div className={classes(styles["ask-bar"], question.side && styles[`ask-${question.side}`])}>
      <strong aria-live="polite">
        {question.side ? `${question.side.toUpperCase()}, ` : ""}
        {measure.ask}
      </strong>
      <span className={styles["ask-sign"]}>{sign}</span>
      {kindOf(measure).dial ? (
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
      ) : null}
    </div>
  );
}
