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

/** No bare letter does anything; arrows stay with the caret. */
export function benchKey(pressed: Pressed): BenchKey | null {
  if (pressed.ctrlKey || pressed.metaKey) return null;
  if (pressed.altKey) {
    switch (pressed.key.toLowerCase()) {
      case "s":
        return "other-side";
      case "z":
        return "undo";
      case "pagedown":
        return "next-stop";
      case "pageup":
        return "previous-stop";
      default:
        return null;
    }
  }
  switch (pressed.key) {
    case "Enter":
      return "accept";
    case "PageDown":
      return "next-step";
    case "PageUp":
      return "previous-step";
    case "F1":
      return "help";
    default:
      return null;
  }
}
