import { type ReactNode, useState } from "react";
import Button from "react-bootstrap/Button";
import { Link } from "react-router";
import type { Catalogue } from "../../api/catalogue";
import type { Identity, Reading, Screen } from "../../api/screens";
import { isLicensed, useSession } from "../../components/base/session";
import { Octagon } from "../../components/marks/Octagon";
import { allSaved, type Unsaved } from "../../state/device/saving";
import { stepTo } from "../../state/domain/addresses";
import { actionWords } from "../../state/domain/wording";
import { coverageWords, openItems } from "./before_signing";
import styles from "./reading.module.css";
import { SignDialog } from "./SignDialog";

interface Props {
  screen: Screen;
  catalogue: Catalogue;
  shown: { reading: Reading; identity: Identity | null };
  /** What is shown is being asked for again: it may not be signed until it is here. */
  refreshing: boolean;
  unsaved: Unsaved;
  /** A version is shown by itself: nothing can be signed there. */
  version: number | null;
  onChanged: () => void;
}

/** What still stands open before signing, each with the way there. */
export function ReadingFooter(props: Props) {
  const { screen, catalogue, shown, refreshing, unsaved, version, onChanged } = props;
  const session = useSession();
  const [signing, setSigning] = useState(false);
  const { reading, identity } = shown;
  const licensed = isLicensed(session);
  const signable = licensed && screen.state === "open" && version === null && identity !== null;
  return (
    <footer className="bench-footer reading-footer">
      <BeforeSigning {...{ screen, catalogue, reading, unsaved, licensed }} />
      {signable ? (
        <Button
          disabled={!allSaved(unsaved) || screen.clashes.length > 0}
          onClick={() => setSigning(true)}
        >
          Sign
        </Button>
      ) : null}
      {signing && identity ? (
        <SignDialog
          {...{ screen, catalogue, reading, identity, refreshing }}
          onClose={() => setSigning(false)}
          onSigned={() => {
            setSigning(false);
            onChanged();
          }}
          onStale={onChanged}
        />
      ) : null}
    </footer>
  );
}

interface BeforeProps extends Pick<Props, "screen" | "catalogue" | "unsaved"> {
  reading: Reading;
  licensed: boolean;
}

function BeforeSigning({ screen, catalogue, reading, unsaved, licensed }: BeforeProps) {
  if (screen.state === "signed") {
    return <Line>Signed and frozen. Later changes are kept as amendments.</Line>;
  }
  const { actions, tests, questions } = openItems(reading, screen);
  const id = screen.record.id;
  const nothing = actions.length + tests.length + questions + screen.clashes.length === 0;
  return (
    <Line>
      <strong>Before signing</strong>
      {actions.map((action) => (
        <span key={`${action.code} ${action.side}`} className={styles["urgent-word"]}>
          <Octagon size={18} /> {actionWords(action, catalogue)} not arranged
        </span>
      ))}
      {screen.clashes.length > 0 ? (
        <strong>
          {screen.clashes.length === 1
            ? "Two answers to one question: choose one above."
            : `Two answers to ${screen.clashes.length} questions: choose one of each above.`}
        </strong>
      ) : null}
      {tests.length > 0 ? (
        <Link to={stepTo(id, "bench", tests[0] ?? null)}>
          {tests.length} {tests.length === 1 ? "stop" : "stops"} open
        </Link>
      ) : null}
      {questions > 0 ? (
        <Link to={stepTo(id, "story")}>
          {questions} {questions === 1 ? "question" : "questions"} open
        </Link>
      ) : null}
      {nothing ? <span>nothing is open.</span> : null}
      <span className="muted">{coverageWords(reading.coverage)}</span>
      {allSaved(unsaved) ? null : (
        <span className="muted">Not everything of this device is saved yet. Sign when it is.</span>
      )}
      {licensed ? null : <span className="muted">A practitioner or owner signs.</span>}
    </Line>
  );
}

const Line = ({ children }: { children: ReactNode }) => (
  <div className={styles.before}>{children}</div>
);
