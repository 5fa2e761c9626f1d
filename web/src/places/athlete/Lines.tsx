import { useState } from "react";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import { drawn, movedOn, movedWords, type Pair } from "../../state/domain/course";
import styles from "./athlete.module.css";
import { ChartRow } from "./ChartRow";
import { LineTable } from "./LineTable";
import type { AthleteParts } from "./parts";
import { TimeRow } from "./TimeRow";

const DRAWN = 2;

/** Each measure as a line on either side: what moved most first, all of them as a table beneath. */
export function Lines(props: AthleteParts & { pairs: Pair[] }) {
  const { pairs, course } = props;
  const [all, setAll] = useState(false);
  const lines = drawn(pairs);
  if (course.screens.length === 0) return null;
  if (lines.length === 0) {
    return (
      <section aria-label="Over time">
        <p className={styles.none}>No measure was taken twice yet: nothing can have changed.</p>
        <LineTable pairs={pairs} />
      </section>
    );
  }
  return (
    <section aria-label="Over time">
      <TimeRow {...props} />
      {(all ? lines : lines.slice(0, DRAWN)).map((pair) => (
        <ChartRow key={pair.key} {...props} pair={pair} />
      ))}
      <Moved pairs={pairs} />
      <p className={styles.legend}>
        <span>
          <i className={styles["key-band"]} /> within error of the first value
        </span>
        <span>
          <i className={styles["key-usual"]} /> usual range
        </span>
        <span>
          <i className={styles["key-ghost"]} /> other side
        </span>
        <span>
          <i className={styles["key-dot"]} /> beyond error
        </span>
        <span>
          <i className={styles["key-square"]} /> does not count
        </span>
        {lines.length > DRAWN ? (
          <button type="button" className="text-button" onClick={() => setAll(!all)}>
            {all ? "Show the two that moved most" : `Draw all ${lines.length} measures`}
          </button>
        ) : null}
      </p>
      <LineTable pairs={pairs} />
    </section>
  );
}

/** What moved beyond error, in words, each side in its lane. */
function Moved({ pairs }: { pairs: readonly Pair[] }) {
  const cell = (side: Side) => {
    const { changed, still, apart } = movedOn(pairs, side);
    return (
      <div className={classes(laneOf(side), styles.moved)}>
        {changed.map(({ pair, line }) => (
          <div key={pair.key}>
            <strong>
              {pair.test.name}, {pair.measure.label.toLowerCase()}
              {pair.which ? `, ${pair.which}` : ""}
            </strong>
            : {movedWords(line, pair.measure)}
          </div>
        ))}
        <div className="muted">
          {changed.length === 0 ? "Nothing moved beyond error. " : ""}
          {still > 0 ? `${still} within error. ` : ""}
          {apart > 0 ? `${apart} not compared.` : ""}
        </div>
      </div>
    );
  };
  return (
    <div className={classes("lanes", styles.row)}>
      {cell(FIRST)}
      <div className="spine">
        <strong>Moved beyond error</strong>
      </div>
      {cell(SECOND)}
    </div>
  );
}
