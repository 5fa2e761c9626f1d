import { SignedNote } from "../../components/marks/SignedNote";
import { stepsFor } from "../../state/domain/questions";
import { EntryBench, type TestBenchProps } from "./EntryBench";
import layout from "./layout.module.css";

/** One test in two lanes and a spine, drawn from the catalogue alone. */
export function TestBench(props: TestBenchProps) {
  const { bench, test, screen } = props;
  const steps = stepsFor(test, screen.schools);
  if (steps.length === 0) {
    return <p className="p-4">The schools of this screen ask nothing here.</p>;
  }
  return <EntryBench {...props} steps={steps} top={<TestTitle bench={bench} test={test} />} />;
}

function TestTitle({ bench, test }: Pick<TestBenchProps, "bench" | "test">) {
  return (
    <>
      <div className={layout["bench-title"]}>
        <h1>{test.name}</h1>
        <p className="muted">{test.purpose}</p>
      </div>
      <SignedNote bench={bench} />
    </>
  );
}
