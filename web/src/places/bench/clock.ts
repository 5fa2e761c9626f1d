// One clock for a timed hold: what it runs for, since when. Whoever shows it only looks.
import type { Measure } from "../../api/catalogue";
import { createStore } from "../../state/device/store";
import { type Json, type Place, placeKey, valueField } from "../../state/domain/fields";

interface Running {
  place: Place;
  longest: number;
  since: number;
}

interface Writes {
  write(
    changes: { test: string; side: Place["side"]; key: string; field: string; value: Json }[],
  ): void;
}

export const clock = createStore<Running | null>(() => null);

const now = (): number => performance.now();

export const runsFor = (place: Place): boolean => {
  const running = clock.getState();
  return running !== null && placeKey(running.place) === placeKey(place);
};

/** Seconds so far, as finely as a thumb can time; never beyond the longest hold. */
export function elapsed(running: Running, at = now()): number {
  return Math.min(Math.round((at - running.since) / 100) / 10, running.longest);
}

/** Starts, or stops and writes what was held. A clock that ran for something else is stopped first. */
export function startOrStop(bench: Writes, place: Place, measure: Measure): void {
  const mine = runsFor(place);
  stopClock(bench);
  if (mine || !measure.clock) return;
  clock.setState({ place, longest: measure.clock.longest, since: now() }, true);
}

/** Stops whatever runs and writes the seconds held. Says whether one ran. */
export function stopClock(bench: Writes): boolean {
  const running = clock.getState();
  if (!running) return false;
  clock.setState(null, true);
  bench.write([{ ...running.place, value: elapsed(running) }]);
  return true;
}

/** It hurts now: pain is there, and where the test asks when it began, that is this moment. */
export function hurtsNow(bench: Writes, place: Place, measure: Measure): void {
  const running = clock.getState();
  const onset = measure.clock?.onset;
  const pain = { ...place, field: "pain", value: { present: true } };
  const began =
    running && onset && runsFor(place)
      ? [{ ...place, field: valueField(onset), value: elapsed(running) }]
      : [];
  bench.write([pain, ...began]);
}
