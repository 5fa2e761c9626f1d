import type { Catalogue, Compared } from "../../api/catalogue";
import type { Reading } from "../../api/screens";
import { classes } from "../../components/base/classes";
import { FIRST, laneOf, ofSide, SECOND } from "../../state/device/lanes";
import { signed, unitOf } from "../../state/domain/parse";
import { type Change, changeCautions, changedRows, changeWords, leftOutWords } from "./changes";
import styles from "./reading.module.css";

/** What has changed beyond error since the athlete's earlier screens, each side in its lane. */
export function ChangeList({ reading, catalogue }: { reading: Reading; catalogue: Catalogue }) {
  if (reading.changes.length === 0) return null;
  const rows = changedRows(reading.changes, catalogue);
  const leftOut = leftOutWords(reading.changes);
  return (
    <section aria-label="Since earlier screens">
      <h2 className={styles["change-title"]}>Since earlier screens</h2>
      {rows.map(({ key, test, measure, sides }) => (
        <div key={key} className={classes("lanes", styles["difference-row"])}>
          <div className={classes(laneOf(FIRST), ofSide(FIRST))}>
            <ChangeCell change={sides[FIRST]} measure={measure} />
          </div>
          <div className="spine">
            <strong>{test.name}</strong>
            <div className="muted">{measure.label}</div>
            <ChangeCell change={sides.none} measure={measure} />
          </div>
          <div className={classes(laneOf(SECOND), ofSide(SECOND))}>
            <ChangeCell change={sides[SECOND]} measure={measure} />
          </div>
        </div>
      ))}
      <p className={classes("muted", styles["change-rest"])}>
        {rows.length === 0 ? "Nothing has changed beyond error. " : ""}
        {leftOut}
      </p>
    </section>
  );
}

function ChangeCell({ change, measure }: { change: Change | undefined; measure: Compared }) {
  if (!change) return null;
  const shown = (value: number) => `${signed(value, measure)}${unitOf(measure)}`;
  const measured = change.before !== null && change.now !== null;
  return (
    <div className={styles["change-cell"]}>
      {change.before !== null && change.now !== null ? (
        <div className={styles["figure-value"]}>
          {shown(change.before)} → {shown(change.now)}
        </div>
      ) : null}
      <div className={measured && change.verdict === "changed" ? "" : "muted"}>
        {changeWords(change, measure)}
      </div>
      {changeCautions(change).map((says) => (
        <div key={says} className="muted">
          {says}
        </div>
      ))}
    </div>
  );
}
