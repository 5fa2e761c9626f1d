import type { Step, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import { entryLane } from "../../state/domain/fields";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  step: Step;
}

/** What was seen, in the same order in both lanes. */
export function SeenRow(props: Props) {
  const { bench, step } = props;
  useStore(bench.state);
  if (step.seen.length === 0) return null;
  return (
    <div className="lanes seen-row">
      <SeenLane {...props} side={FIRST} />
      <div className="spine">
        <strong>Seen</strong>
        <span className="muted">tick what spoils it</span>
      </div>
      <SeenLane {...props} side={SECOND} />
    </div>
  );
}

function SeenLane({ bench, test, entryKey, step, side }: Props & { side: Side }) {
  const lane = entryLane(test, side);
  const place = { test: test.code, side: lane, key: entryKey, field: "seen" };
  const value = bench.value(place);
  const held = Array.isArray(value) ? (value as string[]) : [];
  const toggle = (code: string) => {
    const next = held.includes(code) ? held.filter((other) => other !== code) : [...held, code];
    bench.write([{ ...place, value: next.length > 0 ? next : null }]);
  };
  const shown = test.seen.filter((item) => step.seen.includes(item.code));
  return (
    <fieldset className={classes(laneOf(side), styles.toggles)} aria-label={`Seen, ${side}`}>
      {shown.map((item) => (
        <button
          key={item.code}
          type="button"
          aria-pressed={held.includes(item.code)}
          onClick={() => toggle(item.code)}
        >
          {item.label}
        </button>
      ))}
    </fieldset>
  );
}
