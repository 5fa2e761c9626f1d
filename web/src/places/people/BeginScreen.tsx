import type { Athlete } from "../../api/athletes";
import { ProblemNote } from "../../components/ProblemNote";
import { type Purpose, useBegin } from "../../components/useBegin";
import styles from "./people.module.css";

// In the order in which they come through the door.
const HURTS: readonly (readonly [Purpose, string])[] = [
  ["hip_complaint", "Hip, groin, thigh"],
  ["ankle_injury", "Ankle, lower leg"],
  ["foot_complaint", "Foot"],
];
const OTHERS: readonly (readonly [Purpose, string])[] = [
  ["squad_screen", "Squad screen"],
  ["follow_up", "Follow-up"],
  ["return_to_sport", "Return to sport"],
  ["teaching", "Teaching"],
];

/** Begins any purpose, and asks first. */
export function BeginScreen({ athlete }: { athlete: Athlete }) {
  const begin = useBegin(athlete.id);
  const plates = (purposes: typeof HURTS) =>
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
