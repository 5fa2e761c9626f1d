import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import type { Place } from "../../state/domain/fields";
import { LOOKS_FULL } from "../../state/domain/parse";
import type { Bench } from "../../state/screen/bench";
import styles from "./controls.module.css";

interface Props {
  bench: Bench;
  /** One lane, or both at once. */
  places: Place[];
  says: string;
}

/** Seen to the end, not measured: an answer of its own, never a number. */
export function LooksFull({ bench, places, says }: Props) {
  useStore(bench.state);
  const full = places.every((place) => bench.value(place) === LOOKS_FULL);
  const open = places.filter((place) => bench.value(place) === null);
  const [only] = places;
  const side = places.length === 1 ? (only?.side ?? "both") : "both";
  const tap = () => {
    const changed = full ? places : open;
    bench.write(changed.map((place) => ({ ...place, value: full ? null : LOOKS_FULL })));
  };
  return (
    <div className={styles.plates}>
      <button
        type="button"
        className={classes("plate", side)}
        aria-pressed={full}
        aria-label={`${says}, ${side}`}
        disabled={!full && open.length === 0}
        onClick={tap}
      >
        {says}
      </button>
    </div>
  );
}
