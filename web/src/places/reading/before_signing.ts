// What stands between a reading and its signature.
import type { Catalogue } from "../../api/catalogue";
import type { Answer, Reading, Screen } from "../../api/screens";
import { type Action, standingOf } from "../../state/domain/arranging";
import { unarranged } from "../../state/domain/urgent";

export interface Open {
  /** Urgent, in nobody's hands and without a reason. */
  actions: Action[];
  /** Planned, neither done nor declined. */
  tests: string[];
  /** Asked for by the reading; they never keep anybody from signing. */
  questions: number;
}

export const openItems = (reading: Reading, screen: Screen): Open => ({
  actions: unarranged(reading, screen).filter((action) => !standingOf(screen, action)?.left),
  tests: reading.coverage.open,
  questions: (reading.ask ?? []).length,
});

/** "12 of 15 begun", or that nothing was planned: never a count of nothing. One value begins a test. */
export function coverageWords({ planned, done, declined }: Reading["coverage"]): string {
  if (planned === 0) return "nothing planned";
  const left = declined > 0 ? `, ${declined} not done with a reason` : "";
  return `${done} of ${planned} begun${left}`;
}

/** Each open test declined with a reason, on every side it is asked on. */
export function declines(
  catalogue: Catalogue,
  tests: readonly string[],
  reason: string,
  idOf: (place: string) => string,
): Answer[] {
  return tests.flatMap((code) => {
    const test = catalogue.tests.find((candidate) => candidate.code === code);
    const sides = test?.sides === "both" ? [null] : (["left", "right"] as const);
    return sides.map((side) => ({
      id: idOf(`${code} ${side}`),
      test: code,
      side,
      key: "",
      field: "declined",
      value: reason,
    }));
  });
}
