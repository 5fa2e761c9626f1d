import { useState } from "react";
import { classes } from "../../components/classes";
import { useStore } from "../../components/useStore";
import { stepsFor } from "../../state/questions";
import { BenchFooter } from "./BenchFooter";
import { EntryBench, type TestBenchProps } from "./EntryBench";
import { firstHeldKey, KeyRow } from "./KeyRow";
import layout from "./layout.module.css";

/** One test in two lanes and a spine, drawn from the catalogue alone. */
export function TestBench(props: TestBenchProps) {
  const { bench, test, tests, screen, next, onStop } = props;
  const [entryKey, setEntryKey] = useState(() => firstHeldKey(bench.state.getState().fields, test));
  const steps = stepsFor(test, screen.schools);
  const top = (
    <>
      <TestTitle bench={bench} test={test} />
      <KeyRow bench={bench} test={test} entryKey={entryKey} onKey={setEntryKey} />
    </>
  );
  if (steps.length === 0) {
    return <p className="p-4">The schools of this screen ask nothing here.</p>;
  }
  if (entryKey === null) {
    return (
      <>
        <section className={layout["bench-middle"]} aria-label={test.name}>
          {top}
          <p className="muted">Say which one first. Each keeps values of its own.</p>
        </section>
        <aside
          className={classes("panel", layout["bench-side"])}
          aria-label="Set-up and reading so far"
        />
        <BenchFooter
          {...{ bench, test, tests, screen }}
          nextName={next?.name ?? "Reading"}
          onBack={() => onStop(-1)}
          onNext={() => onStop(1)}
        />
      </>
    );
  }
  return <EntryBench key={entryKey} {...props} steps={steps} entryKey={entryKey} top={top} />;
}

function TestTitle({ bench, test }: Pick<TestBenchProps, "bench" | "test">) {
  const { signed } = useStore(bench.state);
  return (
    <>
      <div className={layout["bench-title"]}>
        <h1>{test.name}</h1>
        <p className="muted">{test.purpose}</p>
      </div>
      {signed ? (
        <p className="caution" role="status">
          This screen is signed. What you enter here waits for an amendment.
        </p>
      ) : null}
    </>
  );
}
