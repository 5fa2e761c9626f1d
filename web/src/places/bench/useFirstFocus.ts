import { useEffect, useLayoutEffect, useRef } from "react";
import type { Question } from "../../state/domain/questions";
import { focusQuestion } from "./focus";

const BEGINS_A_NUMBER = /^[-−\d.,]$/;
const TAKES_KEYS = "input, textarea, select, [contenteditable]";

/**
 * The focus goes to what is asked a moment after the test itself, so that the test is seen at once. A
 * fast hand does not wait for it: a digit that nothing would take brings it there, and then it stays.
 */
export function useFirstFocus(now: Question | null): void {
  const begun = useRef(false);
  useLayoutEffect(() => {
    const pressed = ({ key, altKey, ctrlKey, metaKey }: KeyboardEvent) => {
      if (!now || begun.current || altKey || ctrlKey || metaKey) return;
      if (!BEGINS_A_NUMBER.test(key) || document.activeElement?.matches(TAKES_KEYS)) return;
      begun.current = true;
      focusQuestion(now);
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: when the test opens; then the hand leads
  useEffect(() => {
    if (now && !begun.current) focusQuestion(now);
    begun.current = true;
  }, []);
}
