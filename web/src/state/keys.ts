// The key map, in one place: what the bench listens to and what the help shows.
export type BenchKey =
  | "accept"
  | "next-step"
  | "previous-step"
  | "next-stop"
  | "previous-stop"
  | "other-side"
  | "undo"
  | "help";

interface Pressed {
  key: string;
  altKey: boolean;
  ctrlKey: boolean;
  metaKey: boolean;
}

export const KEY_HELP: readonly (readonly [BenchKey, string, string])[] = [
  ["accept", "Enter", "Accept this value and go to the next question, the other side first"],
  ["other-side", "Alt S", "The same question on the other side"],
  ["next-step", "PgDn", "Next step of this test"],
  ["previous-step", "PgUp", "Step before"],
  ["next-stop", "Alt PgDn", "Next test"],
  ["previous-stop", "Alt PgUp", "Test before"],
  ["undo", "Alt Z", "Undo the last action"],
  ["help", "F1", "This list"],
];

const PLAIN: Readonly<Record<string, BenchKey>> = {
  Enter: "accept",
  PageDown: "next-step",
  PageUp: "previous-step",
  F1: "help",
};

const WITH_ALT: Readonly<Record<string, BenchKey>> = {
  s: "other-side",
  z: "undo",
  pagedown: "next-stop",
  pageup: "previous-stop",
};

/** No bare letter does anything; arrows stay with the caret. */
export function benchKey(pressed: Pressed): BenchKey | null {
  if (pressed.ctrlKey || pressed.metaKey) return null;
  const found = pressed.altKey ? WITH_ALT[pressed.key.toLowerCase()] : PLAIN[pressed.key];
  return found ?? null;
}
