import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Side } from "../../api/client";
import type { Difference } from "../../api/screens";
import { classes } from "../../components/base/classes";
import { DifferenceBar } from "../../components/marks/DifferenceBar";
import { RuledDown } from "../../components/marks/Tally";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import { stepTo } from "../../state/domain/addresses";
import {
  followsWords,
  type LedgerRow,
  otherDifferences,
  otherRetakes,
} from "../../state/domain/ledger";
import { measureIn } from "../../state/domain/measures";
import { signed, unitOf } from "../../state/domain/parse";
import { flagName, gateWords, openingWords, retakeReason } from "../../state/domain/wording";
import { Amended } from "./Amended";
import type { LedgerProps } from "./FlagRow";
import styles from "./reading.module.css";

interface SlimProps {
  name: ReactNode;
  cell: (side: Side) => ReactNode;
  label?: string;
}

function Slim({ name, cell, label }: SlimProps) {
  return (
    <section className={classes("lanes", styles.slim)} aria-label={label}>
      <div className={laneOf(FIRST)}>{cell(FIRST)}</div>
      <div className="spine">{name}</div>
      <div className={laneOf(SECOND)}>{cell(SECOND)}</div>
    </section>
  );
}

/** What only speaks against something: one low row each. */
export function ClearedRows(props: LedgerProps & { rows: readonly LedgerRow[] }) {
  return props.rows.map((row) => {
    const cell = (side: Side) => {
      const cleared = row.ruledDown[side];
      return cleared ? (
        <>
          <RuledDown /> <span>{cleared.because.map((reason) => reason.says).join(" ")}</span>
          <Amended made={props.made} code={row.code} side={side} />
        </>
      ) : (
        <span className="muted">not ruled down</span>
      );
    };
    const name = flagName(props.catalogue, row.code);
    return <Slim key={row.code} name={<strong>{name}</strong>} cell={cell} label={name} />;
  });
}

/** Kept and not read: by which gate, and what would open it. */
export function HeldRows({ reading, catalogue }: LedgerProps) {
  const tests = [...new Set(reading.held.map((item) => item.test))];
  return tests.map((code) => {
    const name = catalogue.tests.find((test) => test.code === code)?.name ?? code;
    const cell = (side: Side) => {
      const held = reading.held.find(
        (item) => item.test === code && (item.side === side || item.side === null),
      );
      return held ? (
        <span>
          <Gate /> <strong>held</strong> {gateWords(catalogue, held.gate)}{" "}
          <span className="muted">{openingWords(catalogue, held.gate)}</span>
        </span>
      ) : (
        <span className="muted">not held</span>
      );
    };
    return <Slim key={code} name={<strong>{name}</strong>} cell={cell} label={name} />;
  });
}

/** Two posts with a bar between: nothing goes through. */
function Gate() {
  return (
    <svg width="14" height="20" viewBox="0 0 14 20" aria-hidden="true" focusable="false">
      <path d="M1 2H13M1 18H13M7 2V18" stroke="currentColor" strokeWidth="4" fill="none" />
    </svg>
  );
}

/** Takes that do not count, where no finding rests on them. */
export function RetakeRows(props: LedgerProps & { rows: readonly LedgerRow[] }) {
  const { reading, catalogue, screen, rows } = props;
  const again = otherRetakes(reading, rows);
  const tests = [...new Set(again.map((item) => item.test))];
  return tests.map((code) => {
    const name = catalogue.tests.find((test) => test.code === code)?.name ?? code;
    const cell = (side: Side) => {
      const here = again.filter(
        (item) => item.test === code && (item.side === side || item.side === null),
      );
      return here.length === 0 ? (
        <span className="muted">counts as it is</span>
      ) : (
        <span>
          {here.map((item) => retakeReason(catalogue, item.reason)).join(" ")}{" "}
          {screen.state === "open" ? (
            <Link to={stepTo(screen.record.id, "bench", code)}>Do it again</Link>
          ) : null}
        </span>
      );
    };
    return (
      <Slim key={code} name={<strong>{name}</strong>} cell={cell} label={`Do again: ${name}`} />
    );
  });
}

/** Differences no finding rests on: the real ones with their bar, the rest in one line. */
export function DifferenceRows(props: LedgerProps & { rows: readonly LedgerRow[] }) {
  const { reading, rows } = props;
  const { real, within } = otherDifferences(reading, rows);
  if (real.length + within.length === 0) return null;
  return (
    <section aria-label="Left against right">
      {real.map((found) => (
        <RealDifference key={`${found.test} ${found.measure}`} {...props} found={found} />
      ))}
      <WithinError {...props} found={within} />
    </section>
  );
}

function RealDifference({ catalogue, found }: LedgerProps & { found: Difference }) {
  const known = measureIn(catalogue, found.test, found.measure);
  if (!known) return null;
  const { test, measure } = known;
  const cell = (side: Side) => (
    <strong className={classes(styles.value, side)}>
      {signed(found[side], measure)}
      {unitOf(measure)}
    </strong>
  );
  return (
    <Slim
      name={
        <span title={found.source}>
          <strong>{test.name}</strong> <span className="muted">{measure.label.toLowerCase()}</span>
          <DifferenceBar measure={measure} found={found} />
        </span>
      }
      cell={cell}
    />
  );
}

/** What follows from both lanes by arithmetic, a row a test; no flag comes of it. */
export function FollowsRows({ reading, catalogue }: LedgerProps) {
  const found = reading.follows ?? [];
  return [...new Set(found.map((item) => item.test))].map((code) => {
    const test = catalogue.tests.find((each) => each.code === code);
    const own = found.filter((item) => item.test === code);
    const labels = own.map((item) => item.label.toLowerCase()).join(" · ");
    const cell = (side: Side) => (
      <span className={styles.pale}>{own.map((item) => followsWords(item, side)).join(" · ")}</span>
    );
    const name = (
      <>
        {test?.name ?? code} <span className="muted">{labels}</span>
      </>
    );
    return <Slim key={code} name={name} cell={cell} label={`${test?.name ?? code}, ${labels}`} />;
  });
}

const SHOWN_WITHIN = 4;

/** Pairs within error: pale, few at a time, all of them for the screen reader. */
function WithinError({ catalogue, found }: LedgerProps & { found: readonly Difference[] }) {
  const pairs = found.flatMap((one) => {
    const known = measureIn(catalogue, one.test, one.measure);
    return known ? [{ ...one, ...known }] : [];
  });
  if (pairs.length === 0) return null;
  const groups = Array.from({ length: Math.ceil(pairs.length / SHOWN_WITHIN) }, (_, at) =>
    pairs.slice(at * SHOWN_WITHIN, (at + 1) * SHOWN_WITHIN),
  );
  return groups.map((group) => {
    const cell = (side: Side) => (
      <span className={styles.pale}>
        {group
          .map((pair) => `${signed(pair[side], pair.measure)}${unitOf(pair.measure)}`)
          .join(" · ")}
      </span>
    );
    return (
      <Slim
        key={group.map((pair) => pair.test + pair.measure.label).join()}
        name={
          <span className="muted">
            {group
              .map((pair) => `${pair.test.name}, ${pair.measure.label.toLowerCase()}`)
              .join(" · ")}
            : within error
          </span>
        }
        cell={cell}
      />
    );
  });
}
