import type { Catalogue } from "../../api/catalogue";
import type { Difference, Reading } from "../../api/screens";
import { classes } from "../../components/classes";
import { DifferenceBar } from "../../components/DifferenceBar";
import { measureIn } from "../../state/measures";
import { signed, unitOf } from "../../state/parse";
import styles from "./reading.module.css";

/** Left against right over the smallest real change. What is within error takes little room. */
export function DifferenceList({ reading, catalogue }: { reading: Reading; catalogue: Catalogue }) {
  if (reading.differences.length === 0) return null;
  return (
    <section aria-label="Left against right">
      <h2 className={styles.band}>Left against right</h2>
      {reading.differences.map((found, place) => (
        <DifferenceRow
          key={`${found.test} ${found.measure}`}
          found={found}
          catalogue={catalogue}
          opensTest={reading.differences[place - 1]?.test !== found.test}
        />
      ))}
    </section>
  );
}

interface RowProps {
  found: Difference;
  catalogue: Catalogue;
  /** The first row of a test names it. */
  opensTest: boolean;
}

function DifferenceRow({ found, catalogue, opensTest }: RowProps) {
  const known = measureIn(catalogue, found.test, found.measure);
  if (!known) return null;
  const { test, measure } = known;
  const slim = found.verdict === "within_error";
  return (
    <div className={classes("lanes", styles["difference-row"], slim && styles.slim)}>
      <div className={classes("lane-left", styles["figure-value"], "left")}>
        {signed(found.left, measure)}
        {unitOf(measure)}
      </div>
      <div className="spine" title={found.source}>
        {opensTest ? <strong>{test.name}</strong> : null}
        <div className="muted">
          {measure.label}
          {slim ? " · within error" : ""}
        </div>
        {slim ? null : <DifferenceBar measure={measure} found={found} />}
      </div>
      <div className={classes("lane-right", styles["figure-value"], "right")}>
        {signed(found.right, measure)}
        {unitOf(measure)}
      </div>
    </div>
  );
}
