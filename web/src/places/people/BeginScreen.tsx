import type { Athlete } from "../../api/athletes";
import { HURTS, type Offered, OTHERS } from "../../components/controls/purposes";
import { useBegin } from "../../components/controls/useBegin";
import { ProblemNote } from "../../components/marks/ProblemNote";
import styles from "./people.module.css";

/** Begins any purpose, and asks first. */
export function BeginScreen({ athlete }: { athlete: Athlete }) {
  const begin = useBegin(athlete.id);
  const plates = (purposes: Offered) =>
    purposes.map(([purpose, says]) => (
      <button
        key={purpose}
        type="button"
        className="plate"
        disabled={begin.isPending}
        onClick={() => begin.mutate({ id: crypto.randomUUID(), purpose })}
      >
        {says}
      </button>
    ));
  return (
    <section aria-label="Begin">
      <h2 className="panel-title">Something hurts</h2>
      <div className={styles.begin}>{plates(HURTS)}</div>
      <h2 className="panel-title">Begin</h2>
      <div className={styles.begin}>{plates(OTHERS)}</div>
      <ProblemNote error={begin.error} />
    </section>
  );
}
