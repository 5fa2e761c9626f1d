// What an amendment, newer rules or another school changed in a reading, in words.
import type { Catalogue } from "../../api/catalogue";
import type { Signed } from "../../api/screens";
import { actionWords, dayWords, flagName, urgencyName } from "./wording";

export type AmendedDifference = NonNullable<Signed["differences"]>[number];

export const CAUSES = { answers: "by what was recorded", rules: "by newer rules" } as const;

/** Strength first, then what it asks for. */
export const stateWords = ({ strength, urgency }: Record<string, string>): string =>
  [strength, urgency ? urgencyName(urgency).toLowerCase() : null].filter(Boolean).join(", ");

export function amendedName(
  catalogue: Catalogue,
  { what, code, before, after }: AmendedDifference,
): string {
  if (what === "flags") return flagName(catalogue, code);
  const urgency = before?.urgency ?? after?.urgency ?? "";
  return `Action, ${actionWords({ code, urgency }, catalogue)}`;
}

/** Strength first, then what it asks for; a flag or action that is not there says so. */
export function amendedState(state: Record<string, string> | null): string {
  if (!state) return "none";
  const { from, to } = state;
  const days =
    from && to ? `${dayWords(from)} to ${dayWords(to)}` : to ? `by ${dayWords(to)}` : null;
  return [stateWords(state), days].filter(Boolean).join(", ");
}
