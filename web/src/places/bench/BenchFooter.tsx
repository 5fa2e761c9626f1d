import { useState } from "react";
import Button from "react-bootstrap/Button";
import type { Test } from "../../api/catalogue";
import type { Screen } from "../../api/screens";
import { classes } from "../../components/base/classes";
import { part } from "../../components/base/part";
import { useStore } from "../../components/base/useStore";
import { useBenchKeys } from "../../components/screen/useBenchKeys";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";
import { expectedHere } from "./expected";
import layout from "./layout.module.css";

// Sheets that open when somebody asks for them.
const { Place: RestSheet } = part(
  () => import("./RestSheet"),
  () => null,
);
const { Place: KeyHelp } = part(
  () => import("./KeyHelp"),
  () => null,
);

interface Props {
  bench: Bench;
  test: Test;
  /** The tests of this screen, in their order. */
  tests: Test[];
  screen: Screen;
  nextName: string;
  onBack: () => void;
  onNext: () => void;
}

export function BenchFooter({ bench, test, tests, screen, nextName, onBack, onNext }: Props) {
  const { canUndo } = useStore(bench.state);
  const [helping, setHelping] = useState(false);
  const [resting, setResting] = useState(false);
  useBenchKeys((key) => {
    if (key === "help") setHelping((shown) => !shown);
    else if (key === "rest-expected") setResting(true);
    else return false;
    return true;
  });
  return (
    <footer className="bench-footer">
      <button
        type="button"
        className={classes("keys-button", styles["place-button"])}
        onClick={() => setHelping(true)}
      >
        Keys <span className="key">F1</span>
      </button>
      <Button variant="quiet" onClick={() => setResting(true)}>
        Rest<span className={layout["said-wide"]}> as expected</span>{" "}
        <span className="key">Alt R</span>
      </Button>
      <span className="flex-fill" />
      <Button variant="quiet" disabled={!canUndo} onClick={() => bench.undo()}>
        Undo <span className="key">Alt Z</span>
      </Button>
      <Button variant="quiet" onClick={onBack}>
        Back <span className="key">PgUp</span>
      </Button>
      <Button id="bench-next" onClick={onNext}>
        <span className={layout["next-name"]}>Next: {nextName}</span>{" "}
        <span className="key">PgDn</span>
      </Button>
      {resting ? (
        <RestSheet
          bench={bench}
          items={expectedNow(bench, test, tests, screen)}
          onClose={() => setResting(false)}
        />
      ) : null}
      {helping ? <KeyHelp onHide={() => setHelping(false)} /> : null}
    </footer>
  );
}

function expectedNow(bench: Bench, test: Test, tests: Test[], screen: Screen) {
  const { reading } = bench.state.getState();
  // Before the first reading nobody knows what a gate holds: then nothing is offered.
  if (!reading) return [];
  return expectedHere(tests, test, screen.schools, {
    value: (place) => bench.value(place),
    held: (code, side) =>
      (reading.shut ?? []).some(
        (item) => item.tests.includes(code) && (item.side === side || item.side === null),
      ),
  });
}
