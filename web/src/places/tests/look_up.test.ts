import { describe, expect, it } from "vitest";
import type { Catalogue, Test } from "../../api/catalogue";
import {
  clockWords,
  type HowRead,
  lookUp,
  positionsOf,
  readRows,
  recordedAs,
  type Wanted,
} from "./look_up";

const laxity = {
  code: "laxity",
  label: "Laxity",
  kind: "grade",
  unit: "1",
  trials: 1,
  plausible: [0, 3],
  grades: ["as expected", "slightly more", "clearly more", "gross"],
  choices: [],
};
const pressed = {
  code: "tender",
  label: "Tender",
  kind: "choices",
  unit: "1",
  trials: 1,
  plausible: null,
  grades: [],
  choices: [
    { code: "atfl", label: "ATFL" },
    { code: "cfl", label: "CFL" },
  ],
};
const angle = {
  ...laxity,
  code: "bend",
  label: "Bend",
  kind: "angle",
  unit: "deg",
  grades: [],
  trials: 3,
};

const made = (code: string, name: string, parts: object = {}): Test =>
  ({
    code,
    name,
    other_names: [],
    purpose: "",
    region: "ankle",
    position: "sitting",
    loads: [],
    measures: [],
    ...parts,
  }) as unknown as Test;

const catalogue = {
  tests: [
    made("palpation", "Palpation", { measures: [pressed] }),
    made("drawer", "Anterior drawer", {
      other_names: ["ATFL drawer"],
      loads: ["atfl"],
      measures: [laxity],
    }),
    made("fold", "Fold", { region: "groin", position: "supine", measures: [angle] }),
    made("sole", "Soles", { region: "foot", position: "supine" }),
  ],
  flag_names: { "instability.atfl": "ATFL laxity", "tightness.fold": "Fold short" },
  sites: [{ code: "groin", label: "Groin" }],
} as unknown as Catalogue;

const wanted = (parts: Partial<Wanted>): string[] =>
  lookUp(catalogue, { text: "", region: "all", position: "", ...parts }).map((test) => test.code);

describe("looking up", () => {
  it("finds by any name first, then by what it is about", () => {
    expect(wanted({ text: "atfl" })).toEqual(["drawer", "palpation"]);
    expect(wanted({ text: "  LAXITY atfl " })).toEqual(["drawer"]);
    expect(wanted({ text: "nothing of the kind" })).toEqual([]);
    expect(wanted({})).toHaveLength(4);
  });

  it("keeps to a region and a position; a groin is looked for at the hip", () => {
    expect(wanted({ region: "hip" })).toEqual(["fold"]);
    expect(wanted({ region: "foot" })).toEqual(["sole"]);
    expect(wanted({ position: "supine", region: "ankle" })).toEqual([]);
    expect(positionsOf(catalogue)).toEqual(["sitting", "supine"]);
    expect(clockWords(90)).toBe("1:30");
  });
});

describe("how a test is read, in words", () => {
  const row = (parts: Partial<HowRead["reads"][number]>) => ({
    measure: null,
    value: null,
    low: null,
    high: null,
    sites: [],
    code: "instability.atfl",
    strength: "likely" as const,
    rules: ["A3"],
    ...parts,
  });
  const test = made("x", "X", { measures: [laxity, pressed, angle] });
  const words = (...reads: ReturnType<typeof row>[]) =>
    readRows({ test: "x", reads, says: [], held_by: [], label: "" }, test, catalogue).map(
      (each) => each.when,
    );

  it("says grades by their word, numbers by their lines, pain by its place", () => {
    expect(words(row({ measure: "laxity", value: 2 }))).toEqual(["laxity: 2 clearly more"]);
    expect(
      words(row({ measure: "bend", high: 70 }), row({ measure: "bend", low: 70, high: 83 })),
    ).toEqual(["bend below 70°", "bend 70° to 83°"]);
    expect(words(row({ measure: "bend", low: 55 }))).toEqual(["bend above 55°"]);
    expect(words(row({ sites: ["groin", "calf"] }))).toEqual(["hurts at groin, calf"]);
  });

  it("puts answers that are read the same in one row, and never others", () => {
    const same = words(
      row({ measure: "tender", value: "atfl" }),
      row({ measure: "tender", value: "cfl" }),
      row({ measure: "tender", value: "cfl", strength: "strong" as never }),
    );
    expect(same).toEqual(["tender: atfl, tender: cfl", "tender: cfl"]);
  });

  it("says what is written down", () => {
    expect(recordedAs(laxity as never)).toBe(
      "0 as expected, 1 slightly more, 2 clearly more, 3 gross",
    );
    expect(recordedAs(pressed as never)).toBe("atfl, cfl");
    expect(recordedAs(angle as never)).toBe("°, 3 trials");
    expect(recordedAs({ ...laxity, kind: "flag", grades: [] } as never)).toBe("yes or no");
  });
});
