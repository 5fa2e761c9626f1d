// What cannot wait: urgent actions nobody has arranged, and danger told while the server is away.
import type { Reading, Screen } from "../api/screens";
import { type Action, isInHand, standingOf } from "./arranging";
import { type Facts, factAt } from "./story";

export const isUrgent = ({ urgency }: { urgency: string }): boolean =>
  urgency === "emergency" || urgency === "same_day";

/** What was left with a reason still cannot wait. */
export const unarranged = (reading: Reading, screen: Pick<Screen, "arrangements">): Action[] =>
  reading.actions.filter((action) => isUrgent(action) && !isInHand(standingOf(screen, action)));

/** Danger questions that were answered yes and that no reading has taken in yet. */
export function dangerUnread(facts: Facts, items: readonly string[], current: boolean): string[] {
  return current ? [] : items.filter((item) => factAt(facts, item) === true);
}
