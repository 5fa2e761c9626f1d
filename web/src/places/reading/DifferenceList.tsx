import type { Catalogue } from "../../api/catalogue";
import type { Difference, Reading } from "../../api/screens";
import { DifferenceBar } from "../../components/DifferenceBar";
import { measureIn } from "../../state/measures";
import { signed, unitOf } from "../../state/parse";

/** Left against right over the smallest real change. What is within error takes little room. */
export function DifferenceList({ reading, catalogue }: { reading: Reading; catalogue: Catalogue }) {
  if (reading.differences.length === 0) return null;
  return (
    <section aria-label="Left against right">
      <h2 className="band">Left against right</h2>
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
    <div className={`lanes difference-row ${slim ? "slim" : ""}`}>
      <div className="lane-left figure-value left">
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
      <div className="lane-right figure-value right">
        {signed(found.right, measure)}
        {unitOf(measure)}
      </div>
    </div>
  );
}
