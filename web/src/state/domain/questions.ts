// The order in which a test asks: step by step, measure by measure, the sound side first.

import type { Measure, Step, Test } from "../../api/catalogue";
import type { Schema, Side } from "../../api/client";
import { type Lane, lanesOf } from "./fields";
import { kindOf } from "./kinds";

export interface Question {
  step: string;
  measure: string;
  side: Lane;
  /** Which bone, toe, space or position; empty where a test knows none, or nobody said which. */
  key: string;
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
      .filter((measure) => standsFor(measure) === null && !isAnsweredOnAMap(test, measure.code))
      .map((measure) => measureOf(test, instead.get(measure.code) ?? measure.code))
  );
}

/** What was pressed is answered together with what hurt, on the same drawing. */
const isAnsweredOnAMap = (test: Test, code: string): boolean =>
  test.measures.some((measure) => measure.map?.pressed === code);

/** The measure whose row this one takes when it is chosen: the same told another way, or either of two. */
export const standsFor = (measure: Measure): string | null =>
  measure.instead_of ?? measure.either_or ?? null;

/** The measure that can stand in a row's place, if the catalogue has one. */
export function twinOf(test: Test, measure: Measure): Measure | null {
  const code = standsFor(measure);
  if (code) return measureOf(test, code);
  return test.measures.find((candidate) => standsFor(candidate) === measure.code) ?? null;
}

export function questionsOf(
  test: Test,
  steps: Step[],
  instead: Instead,
  first: Side,
  keys: readonly Key[],
): Question[] {
  return steps.flatMap((step) =>
    keys.flatMap(({ key }) =>
      rowsOf(test, step, instead).flatMap((measure) =>
        asked(measure, inOrder(lanesOf(test, measure.code), first)).map((side) => ({
          step: step.code,
          measure: measure.code,
          side,
          key,
        })),
      ),
    ),
  );
}

export interface Key {
  key: string;
  label: string;
}

const NO_KEYS: readonly Key[] = [{ key: "", label: "" }];
const NOT_SAID: Key = { key: "", label: "not said which" };

/** Bones, toes, spaces or positions of a test, each with values of its own; `held` has those that stand. */
export function keysOf(test: Test, held: (key: string) => boolean): readonly Key[] {
  if (!test.key) return NO_KEYS;
  const measure = measureOf(test, test.key);
  const keys = kindOf(measure)
    .options(measure)
    .map(({ label, value }) => ({ key: String(value), label }));
  // A record may say no key: what stands there is shown, and never asked for.
  return held("") ? [...keys, NOT_SAID] : keys;
}

/** What is asked of the person is asked once. */
const asked = (measure: Measure, lanes: Lane[]): Lane[] =>
  measure.about_person ? lanes.slice(0, 1) : lanes;

function inOrder(lanes: Lane[], first: Side): Lane[] {
  return lanes.length === 1 ? lanes : [first, other(first)];
}

const same = (a: Question, b: Question) =>
  a.step === b.step && a.measure === b.measure && a.side === b.side && a.key === b.key;

/** Whether a cell is the one that is asked now. */
export const isAsked = (now: Question, question: Question): boolean =>
  now.measure === question.measure && now.side === question.side && now.key === question.key;

/** The question after this one; null after the last. */
export function questionAfter(questions: Question[], now: Question): Question | null {
  const place = questions.findIndex((question) => same(question, now));
  return questions[place + 1] ?? null;
}
