import { useQuery } from "@tanstack/react-query";
import type { Measure, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { HistoryLine, Screen } from "../../api/screens";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { type Place, valueField } from "../../state/domain/fields";
import { kindOf } from "../../state/domain/kinds";
import { lazily } from "../../state/domain/lazily";
import { measureOf, other, type Question } from "../../state/domain/questions";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";
import { historyQuery } from "./queries";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  screen: Screen;
  now: Question;
  side: Side;
  onClose: () => void;
}

/** For the measure in hand: to the other side, and everything this lane has held. */
export function MoreCard({ bench, test, entryKey, screen, now, side, onClose }: Props) {
  const measure = measureOf(test, now.measure);
  const field = valueField(measure.code);
  const here = { test: test.code, side, key: entryKey, field };
  const value = bench.value(here);
  const across = bench.value({ ...here, side: other(side) });
  const said = (held: unknown) => kindOf(measure).said(held, measure, "mean");
  const move = () => {
    bench.moveAcross(here);
    onClose();
  };
  return (
    <>
      <strong>{measure.label}</strong>
      {value !== null && now.side !== null ? (
        <div className={styles.toggles}>
          <button type="button" onClick={move}>
            {across === null
              ? `Wrong side: move ${said(value)} to the ${other(side)}`
              : `Wrong side: change ${said(value)} and ${said(across)} over`}
          </button>
        </div>
      ) : null}
      <History screen={screen} place={here} measure={measure} />
      <button type="button" className={styles["card-close"]} onClick={onClose}>
        Close
      </button>
    </>
  );
}

interface HistoryProps {
  screen: Screen;
  place: Place;
  measure: Measure;
}

const CLOCK = lazily(
  () => new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" }),
);

function History({ screen, place, measure }: HistoryProps) {
  const lines = useQuery(historyQuery(screen.record.id, place));
  if (lines.error) return <ProblemNote error={lines.error} />;
  if (!lines.data) return <p className="muted">Looking</p>;
  if (lines.data.length === 0) return <p className="muted">Nothing was written here yet.</p>;
  return (
    <ul className={styles.history} aria-label="What was written here, newest first">
      {lines.data.map((line) => (
        <li key={line.id}>
          <strong>
            {line.value === null ? "cleared" : kindOf(measure).said(line.value, measure, "mean")}
          </strong>
          <span className="muted">
            {[byWords(line), line.at ? CLOCK().format(new Date(line.at)) : null]
              .filter(Boolean)
              .join(", ")}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** A name an imported file brought is nobody's here. */
const byWords = (line: HistoryLine): string | null =>
  line.by && line.from_file ? `${line.by}, as written in the file` : line.by;
