import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Catalogue } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Reading, Screen } from "../../api/screens";
import Arrange from "../../components/Arrange";
import { SideMark } from "../../components/SideMark";
import { stepTo } from "../../state/addresses";
import {
  actionWords,
  criterionState,
  criterionWords,
  dayWords,
  dueWords,
  gateWords,
  retakeReason,
  urgencyName,
} from "../../state/wording";
import { LateAnswers } from "./LateAnswers";
import { MoveScreen } from "./MoveScreen";
import styles from "./reading.module.css";

interface Props {
  reading: Reading;
  screen: Screen;
  catalogue: Catalogue;
  onChanged: () => void;
}

/** What to do with it: next tests, what to take again, actions, options, signatures. */
export function ReadingSide({ reading, screen, catalogue, onChanged }: Props) {
  const testName = (code: string) =>
    catalogue.tests.find((test) => test.code === code)?.name ?? code;
  const open = (test: string) => stepTo(screen.record.id, "bench", test);
  return (
    <aside className="panel" aria-label="What follows">
      <Part title="Next, most useful first" empty="No further test speaks of what is flagged.">
        {reading.next.map((item) => (
          <Line key={`${item.test} ${item.side}`} side={item.side} title={testName(item.test)}>
            {item.why} <Link to={open(item.test)}>Open</Link>
          </Line>
        ))}
      </Part>
      <Part title="Ready to return: you decide">
        {reading.criteria.map((item) => (
          <p key={item.criterion} className="mb-1">
            <strong>{criterionState(item.state)}</strong>{" "}
            {criterionWords(catalogue, item.criterion)}
          </p>
        ))}
      </Part>
      <Part title="Held: kept, not read">
        {reading.held.map((item) => (
          <Line
            key={`${item.test} ${item.side} ${item.gate}`}
            side={item.side}
            title={testName(item.test)}
          >
            {gateWords(catalogue, item.gate)}
          </Line>
        ))}
      </Part>
      <Part title="Do again">
        {reading.retake.map((item) => (
          <Line
            key={`${item.test} ${item.side} ${item.reason}`}
            side={item.side}
            title={testName(item.test)}
          >
            {retakeReason(catalogue, item.reason)} <Link to={open(item.test)}>Open</Link>
          </Line>
        ))}
      </Part>
      <Part title="Still open">
        {reading.coverage.open.map((test) => (
          <Line key={test} side={null} title={testName(test)}>
            Planned, neither done nor declined. <Link to={open(test)}>Open</Link>
          </Line>
        ))}
      </Part>
      <Part title="Actions">
        {reading.actions.map((action) => (
          <Line
            key={`${action.code} ${action.side}`}
            side={action.side}
            title={`${urgencyName(action.urgency)}: ${actionWords(action, catalogue)}`}
          >
            {dueWords(action)}
            <Arrange screen={screen} action={action} onChanged={onChanged} />
          </Line>
        ))}
      </Part>
      <Part title="Options for a licensed practitioner">
        {[...new Set(reading.advice.flatMap((item) => item.options))].map((option) => (
          <p key={option} className="mb-1">
            {option}
          </p>
        ))}
      </Part>
      <LateAnswers screen={screen} catalogue={catalogue} onChanged={onChanged} />
      <Part title="Signed">
        {screen.signatures.map((signature) => (
          <p key={signature.number} className="mb-1">
            <Link to={stepTo(screen.record.id, "reading", signature.number)}>
              {signature.number === 0 ? "Signed" : `Amended: ${signature.reason}`}
            </Link>
            . {signature.by}, {dayWords(signature.at)}
          </p>
        ))}
      </Part>
      <MoveScreen screen={screen} onMoved={onChanged} />
      <p className="caution">
        Findings for a licensed practitioner to weigh. Not a diagnosis; local protocols come first.
      </p>
    </aside>
  );
}

function Part(props: { title: string; empty?: string; children: ReactNode[] }) {
  if (props.children.length === 0 && !props.empty) return null;
  return (
    <section>
      <h2 className="panel-title">{props.title}</h2>
      {props.children.length > 0 ? props.children : <p className="muted">{props.empty}</p>}
    </section>
  );
}

function Line(props: { side: Side | null; title: string; children: ReactNode }) {
  return (
    <div className={styles["side-line"]}>
      <strong>{props.title}</strong> {props.side ? <SideMark side={props.side} /> : null}
      <div className="muted">{props.children}</div>
    </div>
  );
}
