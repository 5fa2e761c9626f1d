import { Link } from "react-router";
import { stepTo } from "../../state/domain/addresses";
import { entryAt } from "../../state/domain/ledger";
import { criterionState, criterionWords } from "../../state/domain/wording";
import type { LedgerProps } from "./FlagRow";
import styles from "./reading.module.css";

const MARKS = { met: "✓", not_met: "✕", not_tested: "?" } as const;

/** Each criterion of the return: met, not met, or not tested. Nobody adds them up but the reader. */
export function Criteria({ reading, catalogue, screen }: LedgerProps) {
  if (reading.criteria.length === 0) return null;
  return (
    <section className={styles.band} aria-label="Ready to return">
      <h2>Ready to return: you decide</h2>
      <ul className={styles.criteria}>
        {reading.criteria.map((item) => {
          const entry = item.at ? entryAt(screen.record, item.at) : null;
          const words = criterionWords(catalogue, item.criterion);
          return (
            <li key={item.criterion} data-state={item.state}>
              <span aria-hidden="true">{MARKS[item.state]}</span>
              <span>
                <strong>{criterionState(item.state)}</strong>{" "}
                {entry ? (
                  <Link to={stepTo(screen.record.id, "bench", entry.test)}>{words}</Link>
                ) : (
                  words
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
