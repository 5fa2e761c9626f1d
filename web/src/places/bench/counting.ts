// Repeats, one at a time, within what the measure can be.
import type { Measure } from "../../api/catalogue";
import type { Json, Place } from "../../state/domain/fields";
import { shownNumber } from "../../state/domain/parse";

interface Counted {
  value(place: Place): Json;
  write(
    changes: { test: string; side: Place["side"]; key: string; field: string; value: Json }[],
  ): void;
}

/** One more or one less; the first tap counts one, and below none there is nothing. */
export function countOne(bench: Counted, place: Place, measure: Measure, by: 1 | -1): void {
  const [low, high] = measure.plausible ?? [0, 0];
  const now = shownNumber(bench.value(place), "mean") ?? Number(low);
  const next = Math.min(Math.max(Math.round(now) + by, Number(low)), Number(high));
  bench.write([{ ...place, value: next }]);
}
