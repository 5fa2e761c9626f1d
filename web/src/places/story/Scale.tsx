import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import styles from "./story.module.css";

interface Props {
  /** What hurts. */
  of?: string;
  /** When it hurts so much. */
  label: string;
  side?: Side;
  value: number | null;
  onPick: (value: number | null) => void;
}

const SCORES = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

/** Pain from 0 to 10, one tap; the same tap again leaves it open. */
export function Scale({ of, label, side, value, onPick }: Props) {
  const name = of ? `${of}: ${label}` : label;
  return (
    <fieldset className={styles.scale} aria-label={side ? `${name}, ${side}` : name}>
      <div>
        <span aria-hidden="true">{label}</span>
        {SCORES.map((score) => (
          <button
            key={score}
            type="button"
            className={classes("plate", side)}
            aria-pressed={value === score}
            onClick={() => onPick(value === score ? null : score)}
          >
            {score}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
