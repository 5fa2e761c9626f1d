import { classes } from "../../components/base/classes";
import type { Json } from "../../state/domain/fields";
import styles from "./story.module.css";

interface Props {
  label: string;
  options: readonly (readonly [Json, string])[];
  value: Json;
  onPick: (value: Json) => void;
  urgent?: boolean;
  /** Why it is asked. */
  why?: string | undefined;
}

/** One question, its answers side by side; the answer that stands is pressed again to leave it open. */
export function Plates({ label, options, value, onPick, urgent = false, why }: Props) {
  const open = value === undefined || value === null;
  return (
    <fieldset
      className={classes(styles.question, urgent && open && styles.urgent)}
      aria-label={label}
    >
      <span className={styles.asks} aria-hidden="true">
        {label}
        {why && open ? <small>{why}</small> : null}
      </span>
      <div className={styles.answers}>
        {options.map(([code, words]) => (
          <button
            key={String(code)}
            type="button"
            className="plate"
            aria-pressed={value === code}
            onClick={() => onPick(value === code ? null : code)}
          >
            {words}
          </button>
        ))}
        {open ? <span className={styles.open}>open</span> : null}
      </div>
    </fieldset>
  );
}

export const YES_NO = [
  [true, "Yes"],
  [false, "No"],
] as const;
