import type { Purpose } from "./useBegin";

export type Offered = readonly (readonly [Purpose, string])[];

// In the order in which they come through the entry.
export const HURTS: Offered = [
  ["hip_complaint", "Hip, groin, thigh"],
  ["ankle_injury", "Ankle, lower leg"],
  ["foot_complaint", "Foot"],
];
export const OTHERS: Offered = [
  ["squad_screen", "Squad screen"],
  ["follow_up", "Follow-up"],
  ["return_to_sport", "Return to sport"],
  ["teaching", "Teaching"],
];
