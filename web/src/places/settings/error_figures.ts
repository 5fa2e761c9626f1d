// The error figures in force, as a table: from the catalogue, each with who says so.
import type { Catalogue, Measure } from "../../api/catalogue";
import { plain, unitOf } from "../../state/domain/parse";

export interface ErrorRow {
  key: string;
  name: string;
  sem: string;
  mdc95: string;
  threshold: string;
  source: string;
  assumed: boolean;
}

const Z95 = 1.96;

export const smallestRealChange = (sem: number): number => Z95 * Math.SQRT2 * sem;

export function errorRows(catalogue: Catalogue): ErrorRow[] {
  return catalogue.tests.flatMap((test) =>
    [...test.measures, ...test.derived].flatMap((measure) => {
      const { error } = measure;
      if (!error) return [];
      const both = error.percent === "both" ? " % of the value" : unitOf(measure as Measure);
      const threshold = error.percent ? " % of the value" : unitOf(measure as Measure);
      return [
        {
          key: `${test.code} ${measure.code}`,
          name: `${test.name}, ${measure.label.toLowerCase()}`,
          sem: `${plain(error.sem)}${both}`,
          mdc95: `${plain(smallestRealChange(error.sem))}${both}`,
          threshold: `${plain(error.threshold)}${threshold}`,
          source: error.source,
          assumed: /^assumed/.test(error.source),
        },
      ];
    }),
  );
}
