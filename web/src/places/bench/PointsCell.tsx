import { useStore } from "../../components/base/useStore";
import { valueField } from "../../state/domain/fields";
import { ChoiceCell } from "./ChoiceCell";
import type { NumberCellProps } from "./NumberCell";
import { gradeOf, ticksOf, ticksText } from "./score";
import styles from "./score.module.css";

const ANSWERS = [
  { label: "No", value: false },
  { label: "Yes", value: true },
] as const;

/** A grade that is counted point by point: written once every point is answered, or chosen outright. */
export function PointsCell(props: NumberCellProps) {
  const { bench, test, entryKey, measure, question, onNow } = props;
  useStore(bench.state);
  const place = {
    test: test.code,
    side: question.side,
    key: entryKey,
    field: valueField(measure.code),
  };
  const counting = { ...place, field: `points.${measure.code}` };
  const ticks = ticksOf(bench.textDraft(counting), measure.points_for.length);
  const open = ticks.filter((tick) => tick === null).length;
  const given = ticks.filter((tick) => tick === true).length;
  const answer = (index: number, value: boolean) => {
    onNow(question);
    const next = ticks.map((tick, at) => (at !== index ? tick : tick === value ? null : value));
    const counted = gradeOf(ticks);
    const grade = gradeOf(next);
    bench.keepText(counting, ticksText(next), grade !== null);
    if (grade !== null) bench.write([{ ...place, value: grade }]);
    // One that is open again is no no: the grade that was counted from it no longer stands.
    else if (counted !== null && bench.value(place) === counted) {
      bench.write([{ ...place, value: null }]);
    }
  };
  return (
    <div>
      <ul className={`${styles.points} list-unstyled m-0`}>
        {measure.points_for.map((line, index) => (
          <li key={line} className={styles.point}>
            <span>{line}</span>
            {ANSWERS.map(({ label, value }) => (
              <button
                key={label}
                type="button"
                className="plate both"
                aria-label={`${label}, ${line}`}
                aria-pressed={ticks[index] === value}
                onClick={() => answer(index, value)}
              >
                {label}
              </button>
            ))}
          </li>
        ))}
      </ul>
      <p className="m-0 px-3" role="status">
        {open === measure.points_for.length
          ? "Answer each, or choose the score below."
          : open > 0
            ? `${given} so far, ${open} unanswered: can end ${given} to ${given + open}.`
            : `${given} of ${measure.points_for.length}.`}
      </p>
      <ChoiceCell {...props} />
    </div>
  );
}
