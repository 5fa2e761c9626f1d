import Button from "react-bootstrap/Button";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";

interface Props {
  bench: Bench;
  nextName: string;
  onBack: () => void;
  onNext: () => void;
  onHelp: () => void;
}

export function BenchFooter({ bench, nextName, onBack, onNext, onHelp }: Props) {
  const { canUndo } = useStore(bench.state);
  return (
    <footer className="bench-footer">
      <button type="button" className="place-button" onClick={onHelp}>
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
    </footer>
  );
}
