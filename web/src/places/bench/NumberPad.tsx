import { useEffect } from "react";
import type { Measure, Test } from "../../api/catalogue";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { lengthUnit } from "../../state/device/preferences";
import { valueField } from "../../state/domain/fields";
import { kindOf } from "../../state/domain/kinds";
import { unitFor } from "../../state/domain/length";
import type { DialCode, DialSetting } from "../../state/domain/parse";
import { other, type Question } from "../../state/domain/questions";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";
import { focusQuestion, questionId } from "./focus";
import { backspace, isBelow, nextTrial, press, setBelow } from "./pad";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  measure: Measure;
  now: Question;
  dial: DialCode | null;
  onAccept: () => void;
}

const KEYS = ["7", "8", "9", "4", "5", "6", "1", "2", "3", ".", "0"];

/** Our own pad: some tablets show no minus. It types into the field in hand. */
export function NumberPad({ bench, test, entryKey, measure, now, dial, onAccept }: Props) {
  useStore(bench.state);
  const field = valueField(measure.code);
  const place = { test: test.code, side: now.side, key: entryKey, field };
  const chosen = useStore(lengthUnit);
  const draft = bench.draft(place, unitFor(measure, chosen));
  const asked = questionId(now);
  // Where the pad has just opened it must not lie over what it writes.
  useEffect(() => {
    document.getElementById(asked)?.scrollIntoView({ block: "nearest" });
  }, [asked]);
  const setting: DialSetting | null = dial ? { dial, direction: draft.dial?.direction ?? 1 } : null;
  const type = (text: string) => {
    bench.type(place, text, setting, draft.unit);
    focusQuestion(now);
  };
  // A number that stands already is replaced by the first key, as on the keyboard.
  const inHand = bench.hasDraft(place) ? draft.text : "";
  const below = setting ? setting.direction === -1 : isBelow(draft.text);
  const turn = (down: boolean) => {
    if (dial) bench.type(place, draft.text, { dial, direction: down ? -1 : 1 });
    else type(setBelow(draft.text, down));
  };
  const side = now.side ?? "both";
  return (
    <div className={classes(styles.pad, styles[`pad-${side}`])}>
      {kindOf(measure).dial ? (
        <fieldset className={styles["pad-sign"]} aria-label="Which way">
          {[false, true].map((down) => (
            <button
              key={String(down)}
              type="button"
              aria-pressed={below === down}
              onPointerDown={(event) => event.preventDefault()}
              onClick={() => turn(down)}
            >
              {down ? measure.words.negative : measure.words.positive}
            </button>
          ))}
        </fieldset>
      ) : null}
      <div className={styles["pad-keys"]}>
        {KEYS.map((key) => (
          <PadKey key={key} says={key} act={() => type(press(inHand, key))} />
        ))}
        <PadKey says="back" act={() => type(backspace(draft.text))} />
      </div>
      <div className={styles["pad-last"]}>
        <PadKey says="next trial" act={() => type(nextTrial(draft.text))} />
        <PadKey says={now.side ? `accept ${now.side}` : "accept"} act={onAccept} strong />
        {now.side ? (
          <PadKey
            says={`to ${other(now.side)}`}
            act={() => now.side && focusQuestion({ ...now, side: other(now.side) })}
          />
        ) : null}
      </div>
    </div>
  );
}

interface KeyProps {
  says: string;
  act: () => void;
  strong?: boolean;
}

function PadKey({ says, act, strong = false }: KeyProps) {
  return (
    <button
      type="button"
      className={strong ? styles["pad-strong"] : undefined}
      onPointerDown={(event) => event.preventDefault()}
      onClick={act}
    >
      {says}
    </button>
  );
}
