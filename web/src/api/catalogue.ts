import { queryOptions } from "@tanstack/react-query";
import { client, type Schema, take } from "./client";

export type Catalogue = Schema["CatalogueOut"];
export type Test = Schema["Test"];
export type Measure = Schema["Measure"];
/** What a number needs to be said and compared: a measure, or what follows from measures. */
export type Compared = Pick<Measure, "label" | "kind" | "unit" | "polarity" | "words" | "usual">;
export type Step = Schema["Step"];
export type SeenCode = Schema["Seen"];
export type Site = Schema["Site"];

export const catalogueQuery = queryOptions({
  queryKey: ["catalogue"],
  // The client widens pairs to lists; the description knows them as pairs.
  queryFn: () => take(client.GET("/api/catalogue")) as Promise<Catalogue>,
  staleTime: Number.POSITIVE_INFINITY,
});

/** A test and one of its measures, or what follows from them; null where the catalogue has neither. */
export function measureIn(
  catalogue: Catalogue,
  code: string,
  measure: string,
): { test: Test; measure: Compared } | null {
  const test = catalogue.tests.find((candidate) => candidate.code === code);
  const found = [...(test?.measures ?? []), ...(test?.derived ?? [])].find(
    (candidate) => candidate.code === measure,
  );
  return test && found ? { test, measure: found } : null;
}
