import Button from "react-bootstrap/Button";
import { useStore } from "../../components/base/useStore";
import type { Bench } from "../../state/screen/bench";

interface Props {
  bench: Bench;
  next: string;
  /** Something else acts first: the way on is there, and not in pine. */
  quiet: boolean;
  onNext: () => void;
  onBack: (() => void) | null;
}

export function StoryFooter({ bench, next, quiet, onNext, onBack }: Props) {
  const { canUndo } = useStore(bench.state);
  return (
    <footer className="bench-footer">
      <span className="flex-fill" />
      <Button variant="quiet" disabled={!canUndo} onClick={() => bench.undo()}>
        Undo <span className="key">Alt Z</span>
      </Button>
      <Button variant="quiet" disabled={onBack === null} onClick={() => onBack?.()}>
        Back <span className="key">PgUp</span>
      </Button>
      <Button variant={quiet ? "quiet" : "primary"} onClick={onNext}>
        {next} <span className="key">PgDn</span>
      </Button>
    </footer>
  );
}
