// Danger that was told while no reading could take it in.
import { type Facts, factAt } from "./story";

/** Danger questions that were answered yes and that no reading has taken in yet. */
export function dangerUnread(facts: Facts, items: readonly string[], current: boolean): string[] {
  return current ? [] : items.filter((item) => factAt(facts, item) === true);
}
