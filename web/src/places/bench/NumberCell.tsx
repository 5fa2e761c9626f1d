import {
  type KeyboardEvent,
  type PointerEvent,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
} from "react";
import type { Measure, Test } from "../../api/catalogue";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { ofSide } from "../../state/device/lanes";
import { chooseLengthUnit, lengthUnit, touching } from "../../state/device/preferences";
import { valueField } from "../../state/domain/fields";
import { fromMillimetres, type LengthUnit, nextUnit, unitFor } from "../../state/domain/length";
import {
  type DialCode,
  type DialSetting,
  LOOKS_FULL,
  plain,
  shownNumber,
  signed,
  trialsOf,
  unitOf,
} from "../../state/domain/parse";
import { isAsked, type Question } from "../../state/domain/questions";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";
import { questionId } from "./focus";

export interface NumberCellProps {
  bench: Bench;
  test: Test;
  entryKey: string;
  measure: Measure;
  /** The name of its row: the measure, or the bone, toe, space or position it is of. */
  called: string;
  question: Question;
  now: Question;
  dial: DialCode | null;
  how: "mean" | "median" | undefined;
  onNow: (question: Question) => void;
  onAccept: () => void;
}

const REST_MS = 2000;

/** A number in its lane: typed as it is said, shown big, its trials beside it. */
export function NumberCell(props: NumberCellProps) {
  const { bench, test, entryKey, measure, called, question, now, dial, how = "mean" } = props;
  useStore(bench.state);
  const byTouch = useStore(touching);
  const [inHand, setInHand] = useState(false);
  const place = {
    test: test.code,
    side: question.side,
    key: entryKey,
    field: valueField(measure.code),
  };
  const chosen = useStore(lengthUnit);
  const draft = bench.draft(place, unitFor(measure, chosen));
  const unit = draft.unit ?? "mm";
  const value = bench.value(place);
  const problem = bench.problem(place);
  const setting = dialSetting(dial, draft.dial);
  const number = shownNumber(value, how);
  const trials = trialsOf(value);
  const pending = bench.hasDraft(place);
  // One plain number looks the same in the hand and out of it, so that the caret stays put.
  const raw = pending || (inHand && (trials.length > 1 || draft.dial !== null));
  const shown = raw
    ? draft.text
    : number === null
      ? ""
      : unit === "mm"
        ? signed(number, measure)
        : minus(String(fromMillimetres(number, unit)));
  const active = isAsked(now, question);
  const input = useRef<HTMLInputElement>(null);
  // Several trials, or a dial, are written out in the hand: what one types still stands in their place.
  const writtenOut = raw && !pending;
  useLayoutEffect(() => {
    if (writtenOut) input.current?.select();
  }, [writtenOut]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new text starts a new rest
  useEffect(() => {
    if (!inHand || draft.text === "") return;
    const timer = setTimeout(() => bench.rest(place), REST_MS);
    return () => clearTimeout(timer);
  }, [inHand, draft.text]);

  const pressed = (event: KeyboardEvent) => {
    if (event.key !== "Enter" || event.altKey || event.ctrlKey) return;
    event.preventDefault();
    props.onAccept();
  };
  const touched = (event: PointerEvent) => {
    touching.setState(event.pointerType !== "mouse");
  };
  const turn = (direction: 1 | -1) => {
    if (dial) bench.type(place, draft.text, { dial, direction });
  };
  const side = question.side ?? "both";
  const id = questionId(question);
  return (
    <div
      className={classes(
        styles["number-cell"],
        ofSide(question.side),
        active ? "active" : "",
        problem ? "faulty" : "",
      )}
    >
      <div className={styles["number-line"]}>
        <input
          ref={input}
          id={id}
          className={styles["number-input"]}
          aria-label={`${called}, ${side}`}
          aria-invalid={problem !== null}
          aria-describedby={problem ? `${id}-fault` : undefined}
          autoComplete="off"
          inputMode={byTouch ? "none" : "text"}
          maxLength={60}
          placeholder={value === LOOKS_FULL ? "looks full" : "not yet"}
          value={shown}
          size={Math.max(3, Math.min(shown.length, 12))}
          onChange={(event) => bench.type(place, event.target.value, setting, unit)}
          onFocus={(event) => {
            event.target.select();
            setInHand(true);
            props.onNow(question);
          }}
          onBlur={() => {
            setInHand(false);
            bench.commit(place);
          }}
          onKeyDown={pressed}
          onPointerDown={touched}
        />
        {measure.unit === "mm" ? (
          <UnitChoice unit={unit} before={() => bench.commit(place)} />
        ) : (
          <span className={styles.unit}>{shown === "" ? "" : unitOf(measure)}</span>
        )}
      </div>
      {dial && setting ? (
        <fieldset className={styles.direction} aria-label={`Which way, ${side}`}>
          {([1, -1] as const).map((way) => (
            <button
              key={way}
              type="button"
              aria-pressed={setting.direction === way}
              // The number stays in the hand: were it taken now, the row would grow away under the finger.
              onPointerDown={(event) => event.preventDefault()}
              onClick={() => turn(way)}
            >
              {way === 1 ? measure.words.positive : measure.words.negative}
            </button>
          ))}
        </fieldset>
      ) : null}
      {problem ? (
        <div id={`${id}-fault`} className="fault small" role="alert">
          {problem}
        </div>
      ) : trials.length > 1 && !pending ? (
        <div className={styles.trials}>
          <span className="muted">{how} of</span>
          {trials.map((trial, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: trials are known by their order
            <span key={index} className={styles.trial}>
              {unit === "mm" ? plain(trial) : fromMillimetres(trial, unit)}
            </span>
          ))}
        </div>
      ) : null}
    </div>
  );
}

const minus = (text: string): string => text.replace("-", "−");

interface UnitProps {
  unit: LengthUnit;
  /** What is being typed is taken in the unit it was typed in. */
  before: () => void;
}

/** What lengths are typed in: a tap goes on to the next. */
function UnitChoice({ unit, before }: UnitProps) {
  return (
    <button
      type="button"
      className={styles["unit-choice"]}
      aria-label={`${unit}, unit of lengths`}
      onClick={() => {
        before();
        chooseLengthUnit(nextUnit(unit));
      }}
    >
      {unit}
    </button>
  );
}

const dialSetting = (dial: DialCode | null, typed: DialSetting | null): DialSetting | null =>
  dial ? { dial, direction: typed?.direction ?? 1 } : null;
