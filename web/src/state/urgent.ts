// What cannot wait: urgent actions nobody has arranged, and danger told while the server is away.
import type { Reading, Screen } from "../api/screens";
import { type Facts, factAt } from "./story";

type Action = Reading["actions"][number];

export const arrangementOf = (screen: Pick<Screen, "arrangements">, action: Action) =>
  screen.arrangements.find((item) => item.action === action.code && item.side === action.side);

export const isUrgent = ({ urgency }: { urgency: string }): boolean =>
  urgency === "emergency" || urgency === "same_day";

export const unarranged = (reading: Reading, screen: Pick<Screen, "arrangements">): Action[] =>
  reading.actions.filter((action) => isUrgent(action) && !arrangementOf(screen, action));

/** Danger questions that were answered yes and that no reading has taken in yet. */
export function dangerUnread(facts: Facts, items: readonly string[], current: boolean): string[] {
  return current ? [] : items.filter((item) => factAt(facts, item) === true);
}
