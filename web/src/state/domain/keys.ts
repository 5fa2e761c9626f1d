// The key map, in one place: what the bench listens to and what the help shows.
export type BenchKey =
  | "accept"
  | "next-step"
  | "previous-step"
  | "next-stop"
  | "previous-stop"
  | "other-side"
  | "undo"
  | "take"
  | "hurts"
  | "rest-expected"
  | "rest-of-map"
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
  ["take", "F2", "Start or stop the clock; count one more"],
  ["hurts", "F4", "It hurts now"],
  [
    "rest-expected",
    "Alt R",
    "What is left of this position as expected: named first, then written",
  ],
  ["rest-of-map", "Alt A", "The rest of this map: pressed and not tender, or as expected"],
  ["help", "F1", "This list"],
];

const PLAIN: Readonly<Record<string, BenchKey>> = {
  Enter: "accept",
  PageDown: "next-step",
  PageUp: "previous-step",
  F1: "help",
  F2: "take",
  F4: "hurts",
};

const WITH_ALT: Readonly<Record<string, BenchKey>> = {
  s: "other-side",
  z: "undo",
  r: "rest-expected",
  a: "rest-of-map",
  pagedown: "next-stop",
  pageup: "previous-stop",
};

/** No bare letter does anything; arrows stay with the caret. */
export function benchKey(pressed: Pressed): BenchKey | null {
  if (pressed.ctrlKey || pressed.metaKey) return null;
  const found = pressed.altKey ? WITH_ALT[pressed.key.toLowerCase()] : PLAIN[pressed.key];
  return found ?? null;
}
