import { useEffect, useRef, useState } from "react";
import type { Catalogue } from "../../api/catalogue";
import type { Reading } from "../../api/screens";
import { SideMark } from "../../components/SideMark";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";
import { type Consequence, consequences } from "../../state/consequences";
import { factsOf } from "../../state/story";
import styles from "./story.module.css";

/** All that is told, whether or not it was sent yet: the same key for the same story. */
const toldKey = (facts: ReturnType<typeof factsOf>): string => JSON.stringify([...facts].sort());

/** What the last answer changed, said where it was given. */
export function Changed({ bench, catalogue }: { bench: Bench; catalogue: Catalogue }) {
  const state = useStore(bench.state);
  const { reading, readingCurrent } = state;
  const told = toldKey(factsOf(state));
  const before = useRef<Reading | null>(null);
  const toldBefore = useRef(told);
  const [said, setSaid] = useState<Consequence[]>([]);
  useEffect(() => {
    if (!readingCurrent || reading === before.current) return;
    const found = consequences(before.current, reading, catalogue);
    // Read again with nothing told since, it changed nothing: what the last answer changed stays said.
    if (found.length > 0 || told !== toldBefore.current) setSaid(found);
    before.current = reading;
    toldBefore.current = told;
  }, [reading, readingCurrent, catalogue, told]);
  const [whole, setWhole] = useState(false);
  return (
    <section
      className={styles.changed}
      aria-label="What the last answer changed"
      data-whole={whole || undefined}
    >
      <div aria-live="polite">
        {said.map((item) => (
          <span key={`${item.side} ${item.says}`} data-weight={item.weight}>
            {item.side ? <SideMark side={item.side} /> : null} {item.says}
          </span>
        ))}
      </div>
      {said.length > 1 ? (
        <button type="button" aria-expanded={whole} onClick={() => setWhole(!whole)}>
          {whole ? "Less" : `All ${said.length}`}
        </button>
      ) : null}
    </section>
  );
}
