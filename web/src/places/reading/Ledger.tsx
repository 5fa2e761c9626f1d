import { classes } from "../../components/base/classes";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import type { AmendedDifference } from "../../state/domain/amended";
import { ledgerRows } from "../../state/domain/ledger";
import { flagName } from "../../state/domain/wording";
import { Amended } from "./Amended";
import { ChangeList } from "./ChangeList";
import { Criteria } from "./Criteria";
import { EvidenceRows } from "./EvidenceRows";
import { FlagRow, FlagWords, type LedgerProps } from "./FlagRow";
import { NotExaminedRow } from "./NotExaminedRow";
import styles from "./reading.module.css";
import { ClearedRows, DifferenceRows, FollowsRows, HeldRows, RetakeRows } from "./SlimRows";

interface Props extends Pick<LedgerProps, "reading" | "screen" | "catalogue"> {
  made: readonly AmendedDifference[];
}

/** All a reading says, from what weighs most to what nobody looked at. An empty lane says why it is empty. */
export function Ledger({ reading, screen, catalogue, made }: Props) {
  const { flagged, cleared, recorded } = ledgerRows(reading, screen.record, catalogue);
  const how = screen.schools.trial_value ?? "mean";
  const shared: LedgerProps = { reading, screen, catalogue, recorded, how, made };
  const ofNoSide = reading.flags.filter((flag) => flag.side === null);
  return (
    <>
      {ofNoSide.map((flag) => (
        <section
          key={flag.code}
          className={styles.whole}
          aria-label={flagName(catalogue, flag.code)}
        >
          <h2>{flagName(catalogue, flag.code)}</h2>
          <FlagWords {...shared} flag={flag} />
          <Amended made={made} code={flag.code} side={null} />
          <span className="muted small">of no one side</span>
        </section>
      ))}
      {flagged.map((row) => (
        <FlagRow key={row.code} {...shared} row={row} />
      ))}
      {reading.flags.length === 0 ? <NothingFlagged {...shared} /> : null}
      <Gone {...shared} />
      <HeldRows {...shared} />
      <RetakeRows {...shared} rows={flagged} />
      <ClearedRows {...shared} rows={cleared} />
      <DifferenceRows {...shared} rows={flagged} />
      <FollowsRows {...shared} />
      <ChangeList reading={reading} catalogue={catalogue} />
      <Criteria {...shared} />
      <NotExaminedRow {...shared} />
      <EvidenceRows {...shared} />
    </>
  );
}

/** No flag is no comfort: it says what it rests on. */
function NothingFlagged({ reading, screen, recorded, catalogue }: LedgerProps) {
  const cell = (side: "left" | "right") => {
    const done = catalogue.tests.filter((test) => recorded(test.code, side).values.size > 0);
    const declined = catalogue.tests.flatMap((test) => recorded(test.code, side).declined ?? []);
    return (
      <div className={classes(laneOf(side), styles.lane)}>
        <span className="muted">
          {done.length > 0
            ? `no flag from ${done.map((test) => test.name).join(", ")}`
            : declined[0]
              ? `not done: ${declined[0]}`
              : "not tested"}
        </span>
      </div>
    );
  };
  return (
    <section className={classes("lanes", styles.row)} aria-label="No flags">
      {cell(FIRST)}
      <div className="spine">
        <h2>No flags</h2>
        {screen.record.entries.length > 0 && reading.held.length > 0 ? (
          <span className="muted">some of it is held, and not read</span>
        ) : null}
      </div>
      {cell(SECOND)}
    </section>
  );
}

/** Flags an amendment or newer rules took away. */
function Gone({ made, catalogue, reading }: LedgerProps) {
  const gone = made.filter(
    (item) =>
      item.what === "flags" &&
      item.after === null &&
      !reading.flags.some((flag) => flag.code === item.code && flag.side === item.side),
  );
  if (gone.length === 0) return null;
  return (
    <section className={styles.whole} aria-label="No longer flagged">
      {gone.map((item) => (
        <div key={`${item.code} ${item.side}`}>
          {flagName(catalogue, item.code)}
          {item.side ? `, ${item.side}` : ""}:{" "}
          <Amended made={made} code={item.code} side={item.side} />
        </div>
      ))}
    </section>
  );
}
