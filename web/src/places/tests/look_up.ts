// Looking tests up: by any name, by region and position; and how they are read, in words.
import type { Catalogue, Measure, Test } from "../../api/catalogue";
import type { Schema } from "../../api/client";
import { kindOf } from "../../state/domain/kinds";
import { plain, unitOf } from "../../state/domain/parse";
import { type Rungs, rungsOf } from "../../state/domain/rungs";
import { flagName, readable } from "../../state/domain/wording";

export type HowRead = Schema["HowReadOut"];
export type ReadAs = HowRead["reads"][number];
export type Says = HowRead["says"][number];

export interface Wanted {
  text: string;
  region: "all" | "hip" | "ankle" | "foot";
  position: string;
}

// Where a region is looked for; a foot has tests of its own.
const REGIONS: Record<string, Wanted["region"]> = {
  hip: "hip",
  groin: "hip",
  thigh: "hip",
  knee: "hip",
  leg: "ankle",
  ankle: "ankle",
  foot: "foot",
};

/** Every word of what is looked for stands in a name, what it is for, or what it may flag. */
export function lookUp(catalogue: Catalogue, { text, region, position }: Wanted): Test[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const rank = (test: Test): number | null => {
    const names = [test.name, ...test.other_names].join(" · ").toLowerCase();
    const loads = test.loads.map((code) => flagName(catalogue, `instability.${code}`));
    const choices = test.measures.flatMap((measure) =>
      measure.choices.map((choice) => choice.label),
    );
    const about = [
      names,
      test.purpose,
      test.region,
      test.position,
      ...test.loads,
      ...loads,
      ...choices,
    ]
      .join(" ")
      .toLowerCase();
    if (!words.every((word) => about.includes(word))) return null;
    return words.length > 0 && words.every((word) => names.includes(word)) ? 0 : 1;
  };
  return catalogue.tests
    .filter((test) => region === "all" || REGIONS[test.region] === region)
    .filter((test) => position === "" || test.position === position)
    .map((test) => ({ test, at: rank(test) }))
    .filter(({ at }) => at !== null)
    .sort((one, other) => (one.at ?? 0) - (other.at ?? 0))
    .map(({ test }) => test);
}

export const positionsOf = (catalogue: Catalogue): string[] => [
  ...new Set(catalogue.tests.map((test) => test.position)),
];

/** "0:40" */
export const clockWords = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;

export interface ReadRow {
  key: string;
  when: string;
  code: string;
  strength: ReadAs["strength"];
  rules: string[];
}

/** Each answer in words; answers that are read the same stand in one row. */
export function readRows(found: HowRead, test: Test, catalogue: Catalogue): ReadRow[] {
  const rows = new Map<string, ReadRow & { said: string[] }>();
  for (const row of found.reads) {
    const measure = test.measures.find((each) => each.code === row.measure) ?? null;
    const key = [row.measure, row.low === null && row.high === null, row.code, row.strength].join();
    const own =
      row.low === null && row.high === null && row.value !== null ? key : `${key} ${rows.size}`;
    const said = whenWords(row, measure, catalogue);
    const standing = rows.get(own);
    if (standing) standing.said.push(said);
    else
      rows.set(own, {
        key: own,
        when: "",
        said: [said],
        code: row.code,
        strength: row.strength,
        rules: row.rules,
      });
  }
  return [...rows.values()].map(({ said, ...row }) => ({ ...row, when: said.join(", ") }));
}

function whenWords(row: ReadAs, measure: Measure | null, catalogue: Catalogue): string {
  if (!measure) return `hurts at ${row.sites.map((code) => siteName(catalogue, code)).join(", ")}`;
  const label = measure.label.toLowerCase();
  const grade = gradeWord(measure, row.value);
  if (grade !== null) return `${label}: ${row.value} ${grade}`;
  if (row.value !== null) {
    const value = measure.kind === "choices" ? [row.value] : row.value;
    return `${label}: ${kindOf(measure).said(value, measure, "mean").toLowerCase()}`;
  }
  const number = (value: number) => `${plain(value)}${unitOf(measure)}`;
  if (row.low !== null && row.high !== null)
    return `${label} ${number(row.low)} to ${number(row.high)}`;
  if (row.high !== null) return `${label} below ${number(row.high)}`;
  return row.low === null ? `${label}, any` : `${label} above ${number(row.low)}`;
}

function gradeWord(measure: Measure, value: ReadAs["value"]): string | null {
  if (typeof value !== "number") return null;
  return measure.grades[value - Number(measure.plausible?.[0] ?? 0)] ?? null;
}

const siteName = (catalogue: Catalogue, code: string): string =>
  catalogue.sites.find((site) => site.code === code)?.label.toLowerCase() ?? readable(code);

/** What a sign can say both ways, on one ladder. */
export function ladderOf(says: readonly Says[]): Rungs[] {
  return says.map((each) => rungsOf(each));
}

/** What is written down of a measure, in words. */
export function recordedAs(measure: Measure): string {
  if (measure.choices.length > 0)
    return measure.choices.map((choice) => choice.label.toLowerCase()).join(", ");
  if (measure.grades.length > 0) {
    const low = Number(measure.plausible?.[0] ?? 0);
    return measure.grades.map((word, place) => `${low + place} ${word}`).join(", ");
  }
  if (measure.kind === "flag") return "yes or no";
  if (measure.kind === "strength") return "grade 0 to 5, with plus and minus";
  const unit = unitOf(measure).trim() || "a number";
  return measure.trials > 1 ? `${unit}, ${measure.trials} trials` : unit;
}
