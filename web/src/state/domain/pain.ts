// What was said of pain in a test: not asked, painless and painful are three different things.
import type { Json } from "./fields";

export interface Pain {
  present: boolean;
  nrs?: number | null;
  site?: string | null;
  familiar?: boolean | null;
}

export const asPain = (value: Json): Pain | null =>
  typeof value === "object" && value !== null ? (value as Pain) : null;

/** Not asked, painless and painful are three different things. */
export function painWords(value: Json): string {
  const pain = asPain(value);
  if (!pain) return "Pain?";
  if (!pain.present) return "No pain";
  return pain.nrs === null || pain.nrs === undefined ? "Hurts" : `Hurts ${pain.nrs}`;
}
