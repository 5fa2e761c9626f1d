import { useQuery } from "@tanstack/react-query";
import type { Measure, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { historyQuery, type Screen } from "../../api/screens";
import { ProblemNote } from "../../components/ProblemNote";
import type { Bench } from "../../state/bench";
import { valueField } from "../../state/fields";
import { shownNumber, signed, textOf, unitOf } from "../../state/parse";
import { measureOf, other, type Question } from "../../state/questions";

interface Props {
  bench: Bench;
  test: Test;
  screen: Screen;
  now: Question;
  side: Side;
  onClose: () => void;
}

/** For the measure in hand: to the other side, and everything this lane has held. */
export function MoreCard({ bench, test, screen, now, side, onClose }: Props) {
  const measure = measureOf(test, now.measure);
  const field = valueField(measure.code);
  const value = bench.value({ test: test.code, side, field });
  const across = bench.value({ test: test.code, side: other(side), field });
  const move = () => {
    bench.moveAcross(test.code, field, side);
    onClose();
  };
  return (
    <>
      <strong>{measure.label}</strong>
      {value !== null && now.side !== null ? (
        <div className="toggles">
          <button type="button" onClick={move}>
            {across === null
              ? `Wrong side: move ${said(measure, value)} to the ${other(side)}`
              : `Wrong side: change ${said(measure, value)} and ${said(measure, across)} over`}
          </button>
        </div>
      ) : null}
      <History screen={screen} test={test} measure={measure} side={side} />
      <button type="button" className="card-close" onClick={onClose}>
        Close
      </button>
    </>
  );
}

function said(measure: Measure, value: unknown): string {
  const number = measure.kind === "angle" ? shownNumber(value, "mean") : null;
  return number === null ? textOf(value) : `${signed(number, measure)}${unitOf(measure)}`;
}

interface HistoryProps {
  screen: Screen;
  test: Test;
  measure: Measure;
  side: Side;
}

const CLOCK = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });

function History({ screen, test, measure, side }: HistoryProps) {
  const field = valueField(measure.code);
  const lines = useQuery(historyQuery(screen.record.id, test.code, side, field));
  if (lines.error) return <ProblemNote error={lines.error} />;
  if (!lines.data) return <p className="muted">Looking</p>;
  if (lines.data.length === 0) return <p className="muted">Nothing was written here yet.</p>;
  return (
    <ul className="history" aria-label="What was written here, newest first">
      {lines.data.map((line) => (
        <li key={line.id}>
          <strong>{line.value === null ? "cleared" : textOf(line.value)}</strong>
          <span className="muted">
            {[line.by, line.at ? CLOCK.format(new Date(line.at)) : null].filter(Boolean).join(", ")}
          </span>
        </li>
      ))}
    </ul>
  );
}
