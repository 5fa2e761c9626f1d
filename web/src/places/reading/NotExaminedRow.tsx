import { Link } from "react-router";
import type { Side } from "../../api/client";
import type { Reading } from "../../api/screens";
import { classes } from "../../components/base/classes";
import { LANES, laneOf, SECOND } from "../../state/device/lanes";
import { stepTo } from "../../state/domain/addresses";
import { notExaminedWhy, questionWords } from "../../state/domain/wording";
import type { LedgerProps } from "./FlagRow";
import styles from "./reading.module.css";

/** Silence is not health: what nothing speaks about stands in its lane by name, with the way there. */
export function NotExaminedRow(props: LedgerProps) {
  const { reading, screen } = props;
  const missing = reading.coverage.unexamined;
  const next = screen.state === "open" ? nextOf(reading) : null;
  if (missing && missing.length === 0 && !next && (reading.ask ?? []).length === 0) return null;
  return (
    <section className={classes("lanes", styles.open)} aria-label="Not examined">
      {LANES.map((side) => (
        <div key={side} className={classes(laneOf(side), styles["open-lane"])}>
          <div>
            <h2>Not examined</h2>
            {missing ? <Missing {...props} side={side} /> : <span>not kept back then</span>}
          </div>
          {next && (next.side === side || (next.side === null && side === SECOND)) ? (
            <NextTest {...props} next={next} />
          ) : null}
        </div>
      ))}
      <div className="spine">
        <Questions {...props} />
        {missing ? <Missing {...props} side={null} /> : null}
      </div>
    </section>
  );
}

function Missing({ reading, screen, catalogue, side }: LedgerProps & { side: Side | null }) {
  const here = (reading.coverage.unexamined ?? []).filter((item) => item.side === side);
  if (here.length === 0 && side) return <span className="muted">nothing else called for</span>;
  return here.map((item) => {
    const [first] = item.tests;
    const name = catalogue.tests.find((test) => test.code === first)?.name;
    return (
      <div key={item.structure}>
        {item.name}
        {item.why === "not_recorded" ? null : (
          <span className="muted"> {notExaminedWhy(item.why)}</span>
        )}
        {first && name && screen.state === "open" && item.why === "not_recorded" ? (
          <>
            {": "}
            <Link to={stepTo(screen.record.id, "bench", first)}>{name}</Link>
          </>
        ) : null}
      </div>
    );
  });
}

type Next = Reading["next"][number];

/** The most useful test; where nothing is flagged that a test would settle, what was planned or is called for. */
function nextOf({ next, coverage }: Reading): Next | null {
  const [useful] = next;
  if (useful) return useful;
  const [planned] = coverage.open;
  if (planned) return { test: planned, side: null, why: "Planned, and not done yet." };
  const missing = (coverage.unexamined ?? []).find((item) => item.why === "not_recorded");
  const [test] = missing?.tests ?? [];
  return missing && test
    ? { test, side: missing.side, why: `Nothing speaks of it yet: ${missing.name}.` }
    : null;
}

/** One tap from here to what comes next. */
function NextTest({ reading, screen, catalogue, next }: LedgerProps & { next: Next }) {
  const others = reading.next.slice(1);
  const name = (code: string) => catalogue.tests.find((test) => test.code === code)?.name ?? code;
  return (
    <div className={styles.next}>
      <Link className="btn btn-primary" to={stepTo(screen.record.id, "bench", next.test)}>
        Next: {name(next.test)}
      </Link>
      <span>{next.why}</span>
      {others.length > 0 ? (
        <details>
          <summary>{others.length} more that would help</summary>
          {others.map((item) => (
            <div key={`${item.test} ${item.side}`}>
              <Link to={stepTo(screen.record.id, "bench", item.test)}>{name(item.test)}</Link>
              {item.side ? `, ${item.side}` : ""}: {item.why}
            </div>
          ))}
        </details>
      ) : null}
    </div>
  );
}

/** What nobody asked and a rule needs: urgent ones first, each with what hangs on it. */
function Questions({ reading, screen, catalogue }: LedgerProps) {
  const asked = reading.ask;
  if (asked === null) return <span className="muted">questions were not kept back then</span>;
  if (asked.length === 0) return <span className="muted">no question is open</span>;
  return (
    <section aria-label="Still to ask">
      <h2>{asked.length === 1 ? "Open question" : `${asked.length} open questions`}</h2>
      {asked.map((item) => (
        <p key={item.item} className={item.urgent ? styles["urgent-question"] : "mb-1"}>
          <strong>{questionWords(catalogue, item.item)}</strong>{" "}
          {item.urgent ? "Before anything else. " : ""}
          {item.why}
        </p>
      ))}
      {screen.state === "open" ? (
        <Link className="btn btn-quiet" to={stepTo(screen.record.id, "story")}>
          Ask
        </Link>
      ) : null}
    </section>
  );
}
