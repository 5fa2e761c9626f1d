// How it stands with what is to be done: in hand, to be looked at again, closed, left.
import type { Reading, Screen } from "../../api/screens";
import { dayWords } from "./wording";

export type Action = Reading["actions"][number];
/** An action of a screen, as far as doing something about it needs to know. */
export type ActionOf = Pick<Action, "code" | "side" | "urgency">;
export type Standing = Screen["arrangements"][number];
export type Does = "arranged" | "again" | "closed" | "left";
type Step = NonNullable<Standing["arranged"]>;

export const standingOf = (
  screen: Pick<Screen, "arrangements">,
  action: Pick<Action, "code" | "side">,
): Standing | undefined =>
  screen.arrangements.find((item) => item.action === action.code && item.side === action.side);

/** Somebody has it in hand, or there is nothing more to do. */
export const isInHand = (standing: Standing | undefined): boolean =>
  Boolean(standing?.arranged ?? standing?.closed);

/** The step that says how it stands now, to be said and taken back. */
export function newestStep(standing: Standing | undefined): { does: Does; step: Step } | null {
  for (const does of ["closed", "arranged", "left", "again"] as const) {
    const step = standing?.[does];
    if (step) return { does, step };
  }
  return null;
}

/** "K. Aalto sees to it on 16 Sept, 10:15: X-ray booked", as somebody wrote it. */
export function stepWords(does: Does, step: Step): string {
  const said = {
    arranged: () => `${who(step)} on ${when(step)}`,
    again: () => `Again ${dayWords(step.on ?? "")} to ${dayWords(step.until ?? "")}`,
    closed: () => `Closed by ${step.by}`,
    left: () => `Not arranged, ${step.by}`,
  }[does]();
  return step.note ? `${said}: ${step.note}` : said;
}

const who = (step: Step): string => step.whom || step.by;

const when = (step: Step): string =>
  [dayWords(step.on ?? ""), step.at_time].filter(Boolean).join(", ");
