import { useEffect, useState } from "react";
import Button from "react-bootstrap/Button";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";
import { benchKey } from "../../state/keys";
import styles from "./bench.module.css";
import { KeyHelp } from "./KeyHelp";

interface Props {
  bench: Bench;
  nextName: string;
  onBack: () => void;
  onNext: () => void;
}

export function BenchFooter({ bench, nextName, onBack, onNext }: Props) {
  const { canUndo } = useStore(bench.state);
  const [helping, setHelping] = useState(false);
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (benchKey(event) !== "help") return;
      event.preventDefault();
      setHelping((shown) => !shown);
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, []);
  return (
    <footer className="bench-footer">
      <button type="button" className={styles["place-button"]} onClick={() => setHelping(true)}>
        Keys <span className="key">F1</span>
      </button>
      <span className="flex-fill" />
      <Button variant="quiet" disabled={!canUndo} onClick={() => bench.undo()}>
        Undo <span className="key">Alt Z</span>
      </Button>
      <Button variant="quiet" onClick={onBack}>
        Back <span className="key">PgUp</span>
      </Button>
      <Button id="bench-next" onClick={onNext}>
        Next: {nextName} <span className="key">PgDn</span>
      </Button>
      <KeyHelp show={helping} onHide={() => setHelping(false)} />
    </footer>
  );
}
