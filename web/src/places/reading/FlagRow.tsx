import { Link } from "react-router";
import type { Catalogue } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Flag, Reading, Screen } from "../../api/screens";
import { classes } from "../../components/base/classes";
import { DifferenceBar } from "../../components/marks/DifferenceBar";
import { Octagon } from "../../components/marks/Octagon";
import { RuledDown, Tally } from "../../components/marks/Tally";
import { LaneFigure } from "../../maps/LaneFigure";
import { FIRST, LANES, laneOf, SECOND } from "../../state/device/lanes";
import { stepTo } from "../../state/domain/addresses";
import type { AmendedDifference } from "../../state/domain/amended";
import { kindOf } from "../../state/domain/kinds";
import {
  entryAt,
  type LedgerRow,
  type Recorded,
  type Records,
  recordedWords,
  retakesOf,
} from "../../state/domain/ledger";
import { isUrgent } from "../../state/domain/urgent";
import { flagName, gateWords, retakeReason, urgencyName } from "../../state/domain/wording";
import { Amended } from "./Amended";
import styles from "./reading.module.css";

export interface LedgerProps {
  reading: Reading;
  screen: Screen;
  catalogue: Catalogue;
  recorded: Records;
  how: "mean" | "median";
  /** What an amendment or newer rules changed, marked where it stands. */
  made: readonly AmendedDifference[];
}

/** A finding: its name and the difference in the spine, each side's words and figure in its lane. */
export function FlagRow(props: LedgerProps & { row: LedgerRow }) {
  const { row, catalogue, reading } = props;
  const { measure, test } = row.ground ?? {};
  const sources = [...new Set(Object.values(row.flags).flatMap((flag) => flag.sources))];
  return (
    <section className={classes("lanes", styles.row)} aria-label={flagName(catalogue, row.code)}>
      <FlagLane {...props} side={FIRST} />
      <div className="spine">
        <h2>{flagName(catalogue, row.code)}</h2>
        {row.difference && measure ? (
          <DifferenceBar measure={measure} found={row.difference} />
        ) : (
          <span className="muted">{voidWords(props)}</span>
        )}
        <span className="muted small">
          {test ? `${test.name} · ` : ""}
          {rulesOf(reading, row.code)}
        </span>
        {sources.length > 0 ? <span className="muted small">{sources.join("; ")}</span> : null}
      </div>
      <FlagLane {...props} side={SECOND} />
    </section>
  );
}

/** Why the sides are not compared, where a take does not count. */
function voidWords({ row, reading }: LedgerProps & { row: LedgerRow }): string {
  if (!row.ground?.measure) return "";
  const sides = LANES.filter((side) => retakesOf(reading, row.ground, side).length > 0);
  return sides.length > 0 ? `not compared: ${sides.join(" and ")} does not count yet` : "";
}

function FlagLane(props: LedgerProps & { row: LedgerRow; side: Side }) {
  const { row, side, recorded, how, made } = props;
  const own = row.ground ? recorded(row.ground.test.code, side) : null;
  const flag = row.flags[side];
  const ruledDown = row.ruledDown[side];
  return (
    <div className={classes(laneOf(side), styles.lane)}>
      <div className={styles.words}>
        {flag ? <FlagWords {...props} flag={flag} /> : null}
        {ruledDown ? (
          <>
            <RuledDown />
            <div>{ruledDown.because.map((reason) => reason.says).join(" ")}</div>
          </>
        ) : null}
        <Value {...props} own={own} quiet={Boolean(flag)} />
        {flag || ruledDown ? null : <Silence {...props} own={own} />}
        <Amended made={made} code={row.code} side={side} />
        <Again {...props} />
      </div>
      {row.ground && own && own.values.size > 0 ? (
        <LaneFigure ground={row.ground} side={side} own={own} how={how} />
      ) : null}
    </div>
  );
}

/** The number of the row, large where it stands alone. */
function Value(
  props: LedgerProps & { row: LedgerRow; own: Recorded | null; quiet: boolean; side: Side },
) {
  const { row, own, how, side } = props;
  const measure = row.ground?.measure;
  const value = measure ? own?.values.get(measure.code) : undefined;
  if (!measure || value === undefined) return null;
  return (
    <div className={classes(styles.value, side)}>
      <strong>{kindOf(measure).said(value, measure, how)}</strong>{" "}
      <span className="muted">{measure.label.toLowerCase()}</span>
    </div>
  );
}

/** Silence is never health: what was recorded without a flag, or why there is nothing. */
function Silence({
  row,
  side,
  own,
  how,
  reading,
  catalogue,
}: LedgerProps & { row: LedgerRow; side: Side; own: Recorded | null }) {
  const test = row.ground?.test;
  const held = reading.held.find(
    (item) => item.test === test?.code && (item.side === side || item.side === null),
  );
  if (held) return <div className="muted">held: {gateWords(catalogue, held.gate)}</div>;
  if (!test || !own || own.values.size === 0) {
    return (
      <div className="muted">
        {own?.declined
          ? `not done: ${own.declined}`
          : test
            ? `not tested: ${test.name}`
            : "no flag"}
      </div>
    );
  }
  return (
    <div className="muted">
      no flag{row.ground?.measure ? "" : `: ${recordedWords(test, own, how) ?? ""}`}
    </div>
  );
}

/** What does not count and why, and the way there. */
function Again({
  row,
  side,
  reading,
  catalogue,
  screen,
}: LedgerProps & { row: LedgerRow; side: Side }) {
  return retakesOf(reading, row.ground, side).map((item) => (
    <div key={item.reason}>
      <span className="muted">{retakeReason(catalogue, item.reason)}</span>{" "}
      {screen.state === "open" ? (
        <Link className="btn btn-quiet" to={stepTo(screen.record.id, "bench", item.test)}>
          Do it again
        </Link>
      ) : null}
    </div>
  ));
}

export function FlagWords({ flag, screen, catalogue }: LedgerProps & { flag: Flag }) {
  const name = (code: string) => catalogue.tests.find((test) => test.code === code)?.name ?? code;
  return (
    <>
      <div className={styles.strength}>
        <Tally strength={flag.strength} />
        {flag.urgency && isUrgent({ urgency: flag.urgency }) ? (
          <span className={styles["urgent-word"]}>
            <Octagon size={16} /> {urgencyName(flag.urgency).toLowerCase()}
          </span>
        ) : null}
      </div>
      {flag.because.map((reason) => (
        <div key={reason.rule + reason.says}>
          <Link to={answerAt(screen, reason.at)} title={`rule ${reason.rule}`}>
            {reason.says}
          </Link>
        </div>
      ))}
      {flag.against.length > 0 ? (
        <div>
          <span className="muted">Against</span> {flag.against.join(" ")}
        </div>
      ) : null}
      {flag.uncompared ? <div className="muted">Not compared with the other side.</div> : null}
      {flag.settle.length > 0 ? (
        <div>
          <span className="muted">Settles it</span>{" "}
          {flag.settle.map((code, place) => (
            <span key={code}>
              {place > 0 ? ", " : ""}
              <Link to={stepTo(screen.record.id, "bench", code)}>{name(code)}</Link>
            </span>
          ))}
        </div>
      ) : null}
    </>
  );
}

/** Where the answer stands that a reason speaks of: at the bench, or in the story. */
function answerAt(screen: Screen, at: string): string {
  const entry = entryAt(screen.record, at);
  if (entry) return stepTo(screen.record.id, "bench", entry.test);
  if (/red_flags|confounders/.test(at)) return stepTo(screen.record.id, "story", "danger");
  if (/history|birth/.test(at)) return stepTo(screen.record.id, "story", "before");
  if (/onset|symptoms|load|stiff/.test(at)) return stepTo(screen.record.id, "story", "when");
  return stepTo(screen.record.id, "story", "where");
}

function rulesOf(reading: Reading, code: string): string {
  const rules = [...reading.flags, ...reading.ruled_down]
    .filter((flag) => flag.code === code)
    .flatMap((flag) => flag.because.map((reason) => reason.rule));
  const own = [...new Set(rules)];
  return `${own.length === 1 ? "rule" : "rules"} ${own.join(", ")}`;
}
