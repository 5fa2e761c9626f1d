import { queryOptions } from "@tanstack/react-query";
import { client, type Schema, take } from "./client";
import { early } from "./early";

export type Catalogue = Schema["CatalogueOut"];
export type Test = Schema["Test"];
export type Measure = Schema["Measure"];
/** What a number needs to be said and compared: a measure, or what follows from measures. */
export type Compared = Pick<
  Measure,
  "code" | "label" | "kind" | "unit" | "polarity" | "words" | "usual"
>;
export type Step = Schema["Step"];
export type SeenCode = Schema["Seen"];
export type Site = Schema["Site"];

// The client widens pairs to lists; the description knows them as pairs.
export const readCatalogue = () => take(client.GET("/api/catalogue")) as Promise<Catalogue>;

export const catalogueQuery = queryOptions({
  queryKey: ["catalogue"],
  queryFn: () => early("catalogue", readCatalogue),
  staleTime: Number.POSITIVE_INFINITY,
});
