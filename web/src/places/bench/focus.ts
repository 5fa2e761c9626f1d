import type { FocusEvent } from "react";
import type { Question } from "../../state/domain/questions";

export const questionId = (question: Question): string =>
  `q-${question.step}-${question.measure}-${question.key || "none"}-${question.side ?? "both"}`;

/**
 * Where the keyboard brought the focus. Under a finger nothing may move between touching and letting
 * go, or the tap lands beside what was touched: there the tap itself says what is asked.
 */
export const byKeyboard = (then: () => void) => (event: FocusEvent<HTMLElement>) => {
  if (event.currentTarget.matches(":focus-visible")) then();
};

/** The field of a question; of a choice, the chosen or first button. */
export function focusQuestion(question: Question): void {
  const found = document.getElementById(questionId(question));
  if (!found) return;
  const button =
    found.querySelector<HTMLElement>("[aria-pressed='true']") ?? found.querySelector("button");
  (found instanceof HTMLInputElement ? found : (button ?? found)).focus();
}
