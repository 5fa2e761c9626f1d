import type { Compared } from "../../api/catalogue";
import type { Line } from "../../api/course";
import { plain, unitOf } from "./parse";

/** "error 5.5°", or that none is known: then nothing can be said to have changed. */
export function errorWords(lines: readonly Line[], measure: Compared): string {
  const known = lines.map((line) => line.mdc95).find((mdc95) => mdc95 !== null);
  return known === undefined || known === null
    ? "no error figure is known"
    : `error ${plain(known)}${unitOf(measure)}`;
}
