// Which lines of the last visit's story may be offered again: never how much it hurts today, never a no.
import type { Fact } from "../../api/screens";
import { placeKey } from "../../state/domain/fields";
import { type Facts, STORY } from "../../state/screen/story";

export type Part = "where" | "when" | "danger" | "before";

const OF_PART: Record<Part, (field: string) => boolean> = {
  where: (field) => field === "here",
  when: (field) =>
    field.startsWith("symptoms.") || field === "onset.date" || field === "onset.mechanism",
  danger: (field) => field.startsWith("red_flags.") || field.startsWith("confounders."),
  before: (field) => field === "history",
};

/** Those of a part that nobody has told yet today. A no of last time is asked again. */
export function offeredFrom(last: readonly Fact[], facts: Facts, part: Part): Fact[] {
  return last.filter((fact) => {
    const key = placeKey({ ...fact, side: fact.side ?? null });
    const asks = fact.test === STORY && OF_PART[part](fact.field);
    return asks && fact.value !== false && !facts.has(key);
  });
}
