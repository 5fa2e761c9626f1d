import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Side } from "../../api/client";
import { readingQuery } from "../../api/readings";
import { screenQuery } from "../../api/screens";
import { classes } from "../../components/base/classes";
import { SideMark } from "../../components/marks/SideMark";
import { Tally } from "../../components/marks/Tally";
import { LaneFigure } from "../../maps/LaneFigure";
import { FIRST, LANES, laneOf, SECOND } from "../../state/device/lanes";
import { stepTo } from "../../state/domain/addresses";
import { type LedgerRow, ledgerRows } from "../../state/domain/ledger";
import { dayWords, flagName, purposeName, readable } from "../../state/domain/wording";
import styles from "./athlete.module.css";
import type { AthleteParts } from "./parts";

const WITH_FIGURE = 2;

/** What the newest screen flags, by side; the worst two with their figures. */
export function FlagsNow(props: AthleteParts) {
  const { athlete, course } = props;
  const last = athlete.last_screen;
  return (
    <section aria-label="Flags now">
      <div className={classes("lanes", styles.lanehead)}>
        {LANES.map((side) => (
          <div key={side} className={laneOf(side)}>
            <SideMark side={side} /> <span className="muted">{historyWords(course, side)}</span>
          </div>
        ))}
        <div className="spine">
          <h2>Flags now</h2>
        </div>
      </div>
      {last ? (
        <Newest {...props} id={last.id} />
      ) : (
        <p className={styles.none}>Not screened yet: nothing is known of either side.</p>
      )}
    </section>
  );
}

function Newest({ id, catalogue }: AthleteParts & { id: string }) {
  const screen = useQuery(screenQuery(id));
  const reading = useQuery(readingQuery(id));
  if (!screen.data || !reading.data) {
    return <p className={styles.none}>Reading the newest screen.</p>;
  }
  const { record, state, schools } = screen.data;
  const { flagged, recorded } = ledgerRows(reading.data.reading, record, catalogue);
  const ofNoSide = reading.data.reading.flags.filter((flag) => flag.side === null);
  const rows = [...flagged].sort((one, two) => weight(two) - weight(one));
  const cell = (row: LedgerRow, side: Side, figure: boolean) => {
    const flag = row.flags[side];
    const own = row.ground ? recorded(row.ground.test.code, side) : null;
    return (
      <div className={classes(laneOf(side), styles.flag)}>
        <div>
          {flag ? (
            <>
              <Tally strength={flag.strength} />
              <div>{flag.because.map((reason) => reason.says).join(" ")}</div>
            </>
          ) : (
            <span className="muted">{own && own.values.size > 0 ? "no flag" : "not tested"}</span>
          )}
        </div>
        {figure && row.ground && own && own.values.size > 0 ? (
          <LaneFigure
            ground={row.ground}
            side={side}
            own={own}
            how={schools.trial_value ?? "mean"}
          />
        ) : null}
      </div>
    );
  };
  return (
    <>
      <p className={styles.none}>
        <Link to={stepTo(id, "reading")}>
          {dayWords(record.date)}, {purposeName(record.purpose)}
        </Link>
        , {state}.{" "}
        {rows.length + ofNoSide.length === 0 ? "It flags nothing of what was examined." : ""}
        {ofNoSide.map((flag) => `${flagName(catalogue, flag.code)}, of no one side. `).join("")}
      </p>
      {rows.map((row, place) => (
        <div key={row.code} className={classes("lanes", styles.row)}>
          {cell(row, FIRST, place < WITH_FIGURE)}
          <div className="spine">
            <strong>{flagName(catalogue, row.code)}</strong>
          </div>
          {cell(row, SECOND, place < WITH_FIGURE)}
        </div>
      ))}
    </>
  );
}

const STRENGTHS = ["possible", "likely", "strong"];

const weight = (row: LedgerRow): number =>
  Math.max(...Object.values(row.flags).map((flag) => STRENGTHS.indexOf(flag.strength)));

/** What was before on a side, in a few words; silence there says that nobody told of anything. */
function historyWords({ history }: AthleteParts["course"], side: Side): string {
  const here = history.filter((line) => line.side === side || line.side === "both" || !line.side);
  if (here.length === 0) return "nothing told of before";
  return here
    .map((line) => {
      const many = line.count && line.count > 1 ? ` ×${line.count}` : "";
      return `${readable(line.kind)}, ${line.region}${many}${line.side ? "" : " (side not said)"}`;
    })
    .join(" · ");
}
