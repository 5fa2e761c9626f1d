import { useEffect, useRef, useState } from "react";
import type { Catalogue } from "../../api/catalogue";
import { useStore } from "../../components/base/useStore";
import { SideMark } from "../../components/marks/SideMark";
import type { Bench } from "../../state/screen/bench";
import { type Consequence, SinceLastAnswer } from "./consequences";
import styles from "./story.module.css";

/** What the last answer changed, said where it was given. */
export function Changed({ bench, catalogue }: { bench: Bench; catalogue: Catalogue }) {
  const { reading, readingCurrent, answered } = useStore(bench.state);
  const since = useRef(new SinceLastAnswer());
  const [said, setSaid] = useState<Consequence[]>([]);
  useEffect(() => {
    if (reading && readingCurrent) setSaid(since.current.read(reading, answered, catalogue));
  }, [reading, readingCurrent, answered, catalogue]);
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
