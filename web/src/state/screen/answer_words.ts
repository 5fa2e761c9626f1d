// An answer in words: what was asked, and what was said to it.
import type { Catalogue, Measure } from "../../api/catalogue";
import type { Answer } from "../../api/screens";
import { placeKey, placeOfAnswer } from "../domain/fields";
import { kindOf } from "../domain/kinds";
import { textOf } from "../domain/parse";
import { readable } from "../domain/wording";
import { STORY } from "./story";
import { factWords } from "./story_words";

type Told = Pick<Answer, "test" | "side" | "key" | "field" | "value">;

/** Question and answer in one line. */
export function answerWords(catalogue: Catalogue, told: Told): string {
  const fact = told.test === STORY && !isCleared(told.value) ? factOf(catalogue, told) : null;
  return fact ?? `${askedWords(catalogue, told)}: ${valueWords(catalogue, told)}`;
}

/** What was asked: the measure, and which bone, toe or position. */
export function askedWords(catalogue: Catalogue, told: Told): string {
  if (told.test === STORY)
    return factOf(catalogue, { ...told, value: true }) ?? readable(told.field);
  const code = told.field.replace("values.", "");
  const name = [
    measureOf(catalogue, told)?.label ?? readable(code),
    told.key && readable(told.key),
  ];
  return name.filter(Boolean).join(", ");
}

/** What was said, in the measure's own words. */
export function valueWords(catalogue: Catalogue, told: Told): string {
  const { value } = told;
  if (isCleared(value)) return "cleared";
  if (value === true) return "yes";
  if (value === false) return "no";
  const measure = measureOf(catalogue, told);
  if (measure) return kindOf(measure).said(value, measure, "mean");
  if (isPain(value))
    return value.present ? ["hurts", value.site].filter(Boolean).join(", ") : "no pain";
  return typeof value === "object" && !Array.isArray(value) ? JSON.stringify(value) : textOf(value);
}

const isCleared = (value: unknown): boolean => value === null || value === undefined;

const isPain = (value: unknown): value is { present: boolean; site?: string } =>
  typeof value === "object" && value !== null && "present" in value;

const factOf = (catalogue: Catalogue, told: Told): string | null =>
  factWords(catalogue, placeKey(placeOfAnswer(told as Answer)), told.value);

function measureOf(catalogue: Catalogue, told: Told): Measure | undefined {
  const test = catalogue.tests.find(({ code }) => code === told.test);
  return test?.measures.find(({ code }) => `values.${code}` === told.field);
}
