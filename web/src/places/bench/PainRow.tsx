import type { Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { FIRST, laneOf, ofSide, SECOND } from "../../state/device/lanes";
import { entryLane } from "../../state/domain/fields";
import { asPain, painWords } from "../../state/domain/pain";
import { other } from "../../state/domain/questions";
import { SIDE_LETTER } from "../../state/domain/wording";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";
import { byKeyboard } from "./focus";
import layout from "./layout.module.css";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
}

interface RowProps extends Props {
  /** Which bone, toe, space or position, in words. */
  of: string;
  onNow: () => void;
}

/** Asked of a test that is its pain alone: does it hurt, the sound side first. */
export function PainAsk({ bench, test, entryKey, first }: Props & { first: Side }) {
  useStore(bench.state);
  const held = (side: Side) =>
    bench.value({ test: test.code, side: entryLane(test, side), key: entryKey, field: "pain" });
  const asked = held(first) === null ? first : other(first);
  return (
    <div className={layout["ask-top"]}>
      <div className={classes(layout["ask-bar"], ofSide(asked))}>
        <strong aria-live="polite">
          <span className={layout["ask-side"]}>
            {asked.toUpperCase()}
            <span className={layout["ask-comma"]}>, </span>
          </span>
          <span className={layout["ask-words"]}>does it hurt</span>
        </strong>
        <span className={layout["ask-beside"]}>
          {SIDE_LETTER[other(asked)]}{" "}
          {held(other(asked)) === null ? "not yet" : painWords(held(other(asked)))}
        </span>
      </div>
    </div>
  );
}

/** Painless or painful, one tap a side. */
export function PainRow(props: RowProps) {
  useStore(props.bench.state);
  return (
    <div className={classes("lanes", styles["measure-row"])}>
      <PainLane {...props} side={FIRST} />
      <div className="spine">
        <strong>{props.of || "Pain"}</strong>
      </div>
      <PainLane {...props} side={SECOND} />
    </div>
  );
}

function PainLane({ bench, test, entryKey, of, onNow, side }: RowProps & { side: Side }) {
  const place = { test: test.code, side: entryLane(test, side), key: entryKey, field: "pain" };
  const pain = asPain(bench.value(place));
  const tap = (present: boolean) =>
    bench.write([{ ...place, value: pain?.present === present ? null : { ...pain, present } }]);
  return (
    <div className={laneOf(side)}>
      <fieldset
        className={classes(styles["choice-cell"], ofSide(side))}
        aria-label={of ? `Pain, ${of}, ${side}` : `Pain, ${side}`}
      >
        {[false, true].map((present) => (
          <button
            key={String(present)}
            type="button"
            className={classes("plate", side)}
            aria-pressed={pain?.present === present}
            data-expected={!present || undefined}
            onFocus={byKeyboard(onNow)}
            onClick={() => {
              onNow();
              tap(present);
            }}
          >
            {present ? "Hurts" : "No pain"}
          </button>
        ))}
      </fieldset>
    </div>
  );
}
