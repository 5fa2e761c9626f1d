import type { Catalogue } from "../../api/catalogue";
import type { Reading } from "../../api/screens";
import { DifferenceBar } from "../../components/DifferenceBar";
import { signed, unitOf } from "../../state/parse";

/** Left against right, measure by measure, over the smallest real change. */
export function DifferenceList({ reading, catalogue }: { reading: Reading; catalogue: Catalogue }) {
  if (reading.differences.length === 0) return null;
  return (
    <section aria-label="Left against right">
      <h2 className="band">Left against right</h2>
      {reading.differences.map((found) => {
        const test = catalogue.tests.find((candidate) => candidate.code === found.test);
        const measure = [...(test?.measures ?? []), ...(test?.derived ?? [])].find(
          (candidate) => candidate.code === found.measure,
        );
        if (!test || !measure) return null;
        return (
          <div key={`${found.test} ${found.measure}`} className="lanes difference-row">
            <div className="lane-left figure-value left">
              {signed(found.left, measure)}
              {unitOf(measure)}
            </div>
            <div className="spine" title={found.source}>
              <strong>{test.name}</strong>
              <div className="muted">{measure.label}</div>
              <DifferenceBar measure={measure} found={found} />
            </div>
            <div className="lane-right figure-value right">
              {signed(found.right, measure)}
              {unitOf(measure)}
            </div>
          </div>
        );
      })}
    </section>
  );
}
