import type { Question } from "../../state/questions";

export const questionId = (question: Question): string =>
  `q-${question.step}-${question.measure}-${question.side ?? "both"}`;

/** The field of a question; of a choice, the chosen or first button. */
export function focusQuestion(question: Question): void {
  const found = document.getElementById(questionId(question));
  if (!found) return;
  const button =
    found.querySelector<HTMLElement>("[aria-pressed='true']") ?? found.querySelector("button");
  (found instanceof HTMLInputElement ? found : (button ?? found)).focus();
}
