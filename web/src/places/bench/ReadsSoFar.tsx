import type { Catalogue } from "../../api/catalogue";
import type { Reading } from "../../api/screens";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { NotExamined } from "../../components/marks/NotExamined";
import { OpenQuestions } from "../../components/marks/OpenQuestions";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { SideMark } from "../../components/marks/SideMark";
import { Tally } from "../../components/marks/Tally";
import { LANES } from "../../state/device/lanes";
import { flagName, retakeReason } from "../../state/domain/wording";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";

/** Flags as they stand with everything typed, reasons first. */
export function ReadsSoFar({ bench, catalogue }: { bench: Bench; catalogue: Catalogue }) {
  const { reading: last, readingCurrent, unreadable } = useStore(bench.state);
  // What cannot be read as it stands has no reading: an older one would comfort.
  const reading = unreadable ? null : last;
  return (
    <section aria-label="Reads as so far" aria-busy={!readingCurrent} className="reads">
      {reading ? <OpenQuestions reading={reading} catalogue={catalogue} /> : null}
      <h2 className="panel-title">Reads as so far</h2>
      <ProblemNote error={unreadable} />
      {reading && !readingCurrent ? (
        <p className={classes("muted", styles.older)}>Older than what is typed.</p>
      ) : null}
      {reading?.flags.map((flag) => (
        <div key={`${flag.code} ${flag.side}`} className={styles["reads-flag"]}>
          <div>
            <Tally strength={flag.strength} /> {flag.side ? <SideMark side={flag.side} /> : null}
          </div>
          <strong>{flagName(catalogue, flag.code)}</strong>
          <div className="muted">{flag.because.map((reason) => reason.says).join(" ")}</div>
        </div>
      ))}
      {reading?.retake.map((retake) => (
        <div
          key={`${retake.test} ${retake.side} ${retake.reason}`}
          className={styles["reads-flag"]}
        >
          <div>
            <strong>do again</strong> {retake.side ? <SideMark side={retake.side} /> : null}
          </div>
          <div className="muted">{retakeReason(catalogue, retake.reason)}</div>
        </div>
      ))}
      {LANES.filter((side) => reading && !reading.flags.some((flag) => flag.side === side)).map(
        (side) => (
          <p key={side} className="muted">
            No flag on the {side} so far.
          </p>
        ),
      )}
      {reading ? <StillSilent reading={reading} /> : null}
    </section>
  );
}

/** What the story calls for and nothing speaks about yet, by side. */
function StillSilent({ reading }: { reading: Reading }) {
  const missing = reading.coverage.unexamined ?? [];
  if (missing.length === 0) return null;
  return (
    <section aria-label="Not examined yet">
      <h2 className="panel-title">Not examined yet</h2>
      {[null, ...LANES]
        .filter((side) => missing.some((item) => item.side === side))
        .map((side) => (
          <div key={side} className={styles["reads-flag"]}>
            {side ? <SideMark side={side} /> : null}
            <NotExamined reading={reading} side={side} />
          </div>
        ))}
    </section>
  );
}
