// What cannot wait: urgent actions nobody has arranged.
import type { Reading, Screen } from "../../api/screens";
import { type Action, isInHand, standingOf } from "./arranging";

export const isUrgent = ({ urgency }: { urgency: string }): boolean =>
  urgency === "emergency" || urgency === "same_day";

/** What was left with a reason still cannot wait. */
export const unarranged = (reading: Reading, screen: Pick<Screen, "arrangements">): Action[] =>
  reading.actions.filter((action) => isUrgent(action) && !isInHand(standingOf(screen, action)));
