// What stands against the values being typed, field by field.
import type { Preview } from "../../api/screens";
import type { Json, Place } from "../domain/fields";

type Faults = ReadonlyMap<string, string>;

/** What the catalogue's data alone tells at once; the server's own words follow. */
export type QuickFault = (place: Place, value: Json) => string | null;

export function withFault(faults: Faults, key: string, problem: string | null) {
  const next = new Map(faults);
  if (problem) next.set(key, problem);
  else next.delete(key);
  return next;
}

/** The server's faults for what is being typed, at the field; what was no number keeps its own. */
export function draftFaults(
  known: Faults,
  drafts: { key: string }[],
  found: Preview,
  before: number,
): Map<string, string> {
  const faults = new Map(known);
  drafts.forEach(({ key }, index) => {
    const path = `answers[${before + index}].`;
    const fault = found.faults.find((candidate) => candidate.path.startsWith(path));
    if (fault) faults.set(key, fault.problem);
    else faults.delete(key);
  });
  return faults;
}
