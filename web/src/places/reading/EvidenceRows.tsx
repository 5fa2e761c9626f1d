import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Link } from "react-router";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { TextField } from "../../components/controls/TextField";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { Rungs } from "../../components/marks/Rungs";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import { stepTo } from "../../state/domain/addresses";
import { entryAt } from "../../state/domain/ledger";
import { movedWords, ratioWords, rungsOf, type Sign } from "../../state/domain/rungs";
import { capital, flagName } from "../../state/domain/wording";
import type { LedgerProps } from "./FlagRow";
import { evidenceQuery } from "./queries";
import styles from "./reading.module.css";

/** How much each test can say, by published figures; open only where somebody asks. */
export function EvidenceRows(props: LedgerProps) {
  const [open, setOpen] = useState(false);
  return (
    <section className={styles.band} aria-label="How much each test can say">
      <button
        type="button"
        className="text-button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        How much each test can say
      </button>
      {open ? <Evidence {...props} /> : null}
    </section>
  );
}

function Evidence(props: LedgerProps) {
  const { screen, catalogue } = props;
  const [typed, setTyped] = useState("");
  const start = shareOf(useDeferredValue(typed));
  const found = useQuery({
    ...evidenceQuery(screen.record.id, screen.revision, start.share),
    placeholderData: (before) => before,
  });
  if (found.error) return <ProblemNote error={found.error} />;
  if (!found.data) return <p className="muted">Looking it up.</p>;
  const { signs, label } = found.data;
  const codes = [...new Set(signs.map((sign) => sign.code))];
  return (
    <>
      <div className={styles.start}>
        <TextField
          label="Starting probability, in % (if you have one)"
          value={typed}
          fault={start.fault}
          onChange={(event) => setTyped(event.target.value)}
        />
        <p className="muted">
          {capital(label)}. Rungs up: what a positive adds; down: what a negative takes away;
          broken: by study. Signs of one structure count once and are never multiplied.
        </p>
      </div>
      {signs.length === 0 ? <p>Nothing recorded has a published figure.</p> : null}
      {codes.map((code) => (
        <div key={code} className={classes("lanes", styles.slim)}>
          <Signs {...props} signs={signs} code={code} side={FIRST} />
          <div className="spine">
            <strong>{flagName(catalogue, code)}</strong>
          </div>
          <Signs {...props} signs={signs} code={code} side={SECOND} />
        </div>
      ))}
    </>
  );
}

function Signs(props: LedgerProps & { signs: readonly Sign[]; code: string; side: Side }) {
  const { signs, code, side, screen } = props;
  const here = signs.filter((sign) => sign.code === code && sign.side === side);
  return (
    <div className={laneOf(side)}>
      {here.length === 0 ? <span className="muted">no sign with a figure</span> : null}
      {here.map((sign) => {
        const moved = movedWords(sign);
        const entry = entryAt(screen.record, sign.at);
        return (
          <div key={sign.sign + sign.family} className={styles.sign}>
            <Rungs shown={[rungsOf(sign)]} />
            <span>
              <Link to={stepTo(screen.record.id, "bench", entry?.test ?? sign.test)}>
                {sign.sign}
              </Link>{" "}
              {sign.result}: <strong>{ratioWords(sign)}</strong>
              {moved ? <strong className={styles.moved}> {moved}</strong> : null}
              <span className="muted">
                {" "}
                {sign.source}
                {sign.counts || sign.ratio === null ? "" : " · not counted: another sign says more"}
              </span>
            </span>
          </div>
        );
      })}
    </div>
  );
}

/** What is certain cannot move: only what lies between nought and a hundred. */
function shareOf(typed: string): { share: number | null; fault: string | null } {
  if (typed.trim() === "") return { share: null, fault: null };
  const percent = Number(typed.replace(",", ".").replace("%", ""));
  if (Number.isFinite(percent) && percent > 0 && percent < 100) {
    return { share: percent / 100, fault: null };
  }
  return { share: null, fault: "Between 0 and 100, without either." };
}
