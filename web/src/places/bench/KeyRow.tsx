import type { Test } from "../../api/catalogue";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";
import { type Fields, isValueField, placeOf } from "../../state/fields";
import { kindOf } from "../../state/kinds";
import { measureOf } from "../../state/questions";
import styles from "./bench.module.css";

interface Props {
  bench: Bench;
  test: Test;
  /** Null until somebody has said which. */
  entryKey: string | null;
  onKey: (key: string) => void;
}

const NOT_SAID = "";

/** Which bone, toe, space or position: each has values of its own, so it is said before anything else. */
export function KeyRow({ bench, test, entryKey, onKey }: Props) {
  const { fields } = useStore(bench.state);
  if (!test.key) return null;
  const measure = measureOf(test, test.key);
  const options = kindOf(measure).options(measure);
  const keys = [...options.map(({ label, value }) => ({ label, key: String(value) }))];
  return (
    <fieldset
      className={styles["key-row"]}
      id="bench-key"
      aria-label={`Which ${measure.label.toLowerCase()}`}
    >
      <strong>{measure.label}</strong>
      {[...keys, { label: "not said", key: NOT_SAID }].map(({ label, key }) => (
        <button
          key={key}
          type="button"
          aria-pressed={entryKey === key}
          onClick={() => onKey(key)}
          onKeyDown={(event) => {
            if (event.key !== "Enter") return;
            event.preventDefault();
            onKey(key);
          }}
        >
          {label}
          {sidesHeld(fields, test, key)}
        </button>
      ))}
    </fieldset>
  );
}

/** On which sides something stands already. */
function sidesHeld(fields: Fields, test: Test, key: string): string {
  const sides = new Set<string>();
  for (const [name] of fields) {
    const place = placeOf(name);
    if (place.test !== test.code || place.key !== key) continue;
    if (isValueField(place.field) || place.field === "pain") sides.add(place.side ?? "both");
  }
  return sides.size > 0 ? `, ${[...sides].join(" and ")}` : "";
}

/** The keys that hold something, for a test that is opened again. */
export function firstHeldKey(fields: Fields, test: Test): string | null {
  if (!test.key) return NOT_SAID;
  for (const [name] of fields) {
    const place = placeOf(name);
    if (place.test === test.code && isValueField(place.field)) return place.key;
  }
  return null;
}
