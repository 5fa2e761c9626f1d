// Answers given at places of a drawing: which measure, or which key, belongs to which place.
import type { Measure, Step, Test } from "../../api/catalogue";
import type { Json } from "../../state/domain/fields";
import { optionsOf } from "../../state/domain/kinds";
import { type Key, measureOf } from "../../state/domain/questions";

export interface SpotOnMap {
  /** The code of its place on the drawing. */
  code: string;
  label: string;
  measure: Measure;
  key: string;
}

/** The places of a step that are answered on its drawing; of a keyed test each key is one. */
export function spotsOf(test: Test, step: Step, keys: readonly Key[]): SpotOnMap[] {
  const measures = (step.map?.measures ?? []).map((code) => measureOf(test, code));
  if (!test.key) {
    return measures.map((measure) => ({
      code: measure.code,
      label: measure.label,
      measure,
      key: "",
    }));
  }
  return keys.flatMap(({ key, label }) =>
    measures.map((measure) => ({ code: key, label, measure, key })),
  );
}

/** Marks that part without colour, by the place of an answer among those offered. */
const MARKS = ["clear", "less", "absent", "unsure"] as const;
export type SpotMark = "open" | (typeof MARKS)[number];

export function spotMark(measure: Measure, value: Json): SpotMark {
  const at = optionsOf(measure).findIndex((option) => option.value === value);
  return MARKS[at] ?? "open";
}

export const spotWords = (measure: Measure, value: Json): string =>
  optionsOf(measure)
    .find((option) => option.value === value)
    ?.label.toLowerCase() ?? "not yet";

/** One tap further: the expected answer first, after the last none. */
export function afterSpot(measure: Measure, value: Json): Json {
  const options = optionsOf(measure);
  const at = options.findIndex((option) => option.value === value);
  return options[at + 1]?.value ?? null;
}

/** What is expected of a place, for all that nobody touched. */
export const expectedAt = (measure: Measure): Json => optionsOf(measure)[0]?.value ?? null;

/** The marks there can be, each in words. */
export const legendOf = (measure: Measure): { mark: SpotMark; says: string }[] => [
  { mark: "open", says: "not yet" },
  ...optionsOf(measure).map((option, at) => ({
    mark: MARKS[at] ?? ("open" as const),
    says: option.label.toLowerCase(),
  })),
];
