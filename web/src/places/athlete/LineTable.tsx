import { Fragment, useState } from "react";
import type { Compared } from "../../api/catalogue";
import type { Line } from "../../api/course";
import { movedWords, type Pair } from "../../state/domain/course";
import { plain, signed, unitOf } from "../../state/domain/parse";
import { dayWords } from "../../state/domain/wording";
import styles from "./athlete.module.css";

const ORDER = ["left", "right", "none"] as const;

/** Every measure and value in words: nothing the drawings show is missing here. */
export function LineTable({ pairs }: { pairs: readonly Pair[] }) {
  const [open, setOpen] = useState(false);
  if (pairs.length === 0) return null;
  return (
    <div className={styles.table}>
      <button
        type="button"
        className="text-button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        All {pairs.length} measures, as a table
      </button>
      {open ? (
        <table>
          <thead>
            <tr>
              <th scope="col">Compared</th>
              <th scope="col">Side</th>
              <th scope="col">Values</th>
              <th scope="col">Error</th>
              <th scope="col">Since the first</th>
            </tr>
          </thead>
          <tbody>
            {pairs.map((pair) => (
              <Fragment key={pair.key}>
                {ORDER.map((side) => {
                  const line = pair.lines[side];
                  return line ? <Row key={side} pair={pair} line={line} side={side} /> : null;
                })}
              </Fragment>
            ))}
          </tbody>
        </table>
      ) : null}
    </div>
  );
}

function Row({ pair, line, side }: { pair: Pair; line: Line; side: (typeof ORDER)[number] }) {
  const { test, measure, which } = pair;
  return (
    <tr>
      <th scope="row">
        {test.name}, {measure.label.toLowerCase()}
        {which ? `, ${which}` : ""}
      </th>
      <td className={side}>{side === "none" ? "no one side" : side}</td>
      <td>{valuesOf(line, measure)}</td>
      <td>{line.mdc95 === null ? "not known" : `${plain(line.mdc95)}${unitOf(measure)}`}</td>
      <td>{movedWords(line, measure)}</td>
    </tr>
  );
}

const valuesOf = (line: Line, measure: Compared): string =>
  line.points
    .map((point) => {
      const counts = point.validity === "valid" ? "" : ", does not count";
      return `${dayWords(point.date)}: ${signed(point.value, measure)}${unitOf(measure)}${counts}`;
    })
    .join("; ");
