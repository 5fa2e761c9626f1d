import type { Step, Test } from "../../api/catalogue";
import { useStore } from "../../components/base/useStore";
import { lanesOf, valueField } from "../../state/domain/fields";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  steps: Step[];
  current: string;
  onStep: (index: number) => void;
}

export function StepTabs({ bench, test, entryKey, steps, current, onStep }: Props) {
  useStore(bench.state);
  if (steps.length < 2) return null;
  return (
    <div className={styles["step-tabs"]}>
      {steps.map((step, index) => (
        <button
          key={step.code}
          type="button"
          aria-current={step.code === current ? "step" : undefined}
          onClick={() => onStep(index)}
        >
          {index + 1} {step.title}
          {progress(bench, test, entryKey, step)}
        </button>
      ))}
    </div>
  );
}

/** Which lanes of a step hold something. */
function progress(bench: Bench, test: Test, entryKey: string, step: Step): string {
  const done = (["left", "right"] as const).filter((side) =>
    step.measures.some((measure) => {
      const lane = lanesOf(test, measure).includes(null) ? null : side;
      const place = { test: test.code, side: lane, key: entryKey, field: valueField(measure) };
      return bench.value(place) !== null;
    }),
  );
  if (done.length === 2) return ", both";
  return done[0] ? `, ${done[0]}` : "";
}
