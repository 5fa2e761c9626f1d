// The order in which a test asks: step by step, measure by measure, the sound side first.

import type { Measure, Step, Test } from "../api/catalogue";
import type { Schema, Side } from "../api/client";
import { type Lane, lanesOf } from "./fields";

export interface Question {
  step: string;
  measure: string;
  side: Lane;
}

/** Which of two ways of reading the same thing is in use: base measure → measure in its place. */
export type Instead = ReadonlyMap<string, string>;

export const other = (side: Side): Side => (side === "left" ? "right" : "left");

/** The steps a screen's schools ask for. */
export function stepsFor(test: Test, schools: Partial<Schema["Schools"]>): Step[] {
  return test.steps.filter((step) => {
    if (!step.school) return true;
    const own = (schools as Record<string, string | number>)[step.school.key];
    return own !== undefined && step.school.among.includes(own);
  });
}

export function measureOf(test: Test, code: string): Measure {
  const found = test.measures.find((measure) => measure.code === code);
  if (!found) throw new Error(`${test.code} has no measure ${code}`);
  return found;
}

/** The rows of a step: a measure that stands in for another takes its row. */
export function rowsOf(test: Test, step: Step, instead: Instead): Measure[] {
  return (
    step.measures
      // The key is part of the place, and asked before everything else.
      .filter((code) => code !== test.key)
      .map((code) => measureOf(test, code))
      .filter((measure) => !measure.instead_of && !isAnsweredOnAMap(test, measure.code))
      .map((measure) => measureOf(test, instead.get(measure.code) ?? measure.code))
  );
}

/** What was pressed is answered together with what hurt, on the same drawing. */
const isAnsweredOnAMap = (test: Test, code: string): boolean =>
  test.measures.some((measure) => measure.map?.pressed === code);

/** The measure that can stand in a row's place, if the catalogue has one. */
export function twinOf(test: Test, measure: Measure): Measure | null {
  const code = measure.instead_of;
  if (code) return measureOf(test, code);
  return test.measures.find((candidate) => candidate.instead_of === measure.code) ?? null;
}

export function questionsOf(test: Test, steps: Step[], instead: Instead, first: Side): Question[] {
  return steps.flatMap((step) =>
    rowsOf(test, step, instead).flatMap((measure) =>
      inOrder(lanesOf(test, measure.code), first).map((side) => ({
        step: step.code,
        measure: measure.code,
        side,
      })),
    ),
  );
}

function inOrder(lanes: Lane[], first: Side): Lane[] {
  return lanes.length === 1 ? lanes : [first, other(first)];
}

const same = (a: Question, b: Question) =>
  a.step === b.step && a.measure === b.measure && a.side === b.side;

/** The question after this one; null after the last. */
export function questionAfter(questions: Question[], now: Question): Question | null {
  const place = questions.findIndex((question) => same(question, now));
  return questions[place + 1] ?? null;
}
