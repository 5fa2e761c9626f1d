import type { Catalogue, Compared, Test } from "../../api/catalogue";

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

/** Newton at a lever in millimetres, in newton metres; null where either is unknown. */
export const torque = (newton: number | null, lever: number | null): number | null =>
  newton === null || lever === null ? null : (newton * lever) / 1000;
