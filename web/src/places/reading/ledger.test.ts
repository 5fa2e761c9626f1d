import { describe, expect, it } from "vitest";
import type { Catalogue } from "../../api/catalogue";
import type { Flag, Reading, Screen } from "../../api/screens";
import { isInHand, newestStep, standingOf, stepWords } from "../../state/domain/arranging";
import {
  entryAt,
  figureNumbers,
  followsWords,
  ledgerRows,
  otherDifferences,
  otherRetakes,
  recordedWords,
  recordsOf,
  retakesOf,
} from "../../state/domain/ledger";
import { movedWords, ratioWords, rungsOf, type Sign } from "../../state/domain/rungs";
import { coverageWords, declines, openItems } from "./before_signing";

const measure = (code: string, parts: object = {}) => ({
  code,
  label: code,
  kind: "angle",
  unit: "deg",
  per_side: true,
  choices: [],
  map: null,
  usual: null,
  polarity: "higher",
  words: { finding: "less" },
  ...parts,
});

const catalogue = {
  tests: [
    {
      code: "hip.bend",
      name: "Bend",
      sides: "each",
      key: null,
      measures: [measure("thigh"), measure("knee")],
      steps: [
        { measures: ["thigh"], figure: null },
        { measures: ["knee"], figure: { kind: "knee", joints: {} } },
      ],
    },
    {
      code: "ankle.press",
      name: "Press",
      sides: "each",
      key: null,
      measures: [
        measure("pressed", { kind: "choices" }),
        measure("tender", {
          kind: "choices",
          choices: [
            { code: "atfl", label: "ATFL" },
            { code: "cfl", label: "CFL" },
          ],
          map: { points: "points", views: [], pressed: "pressed" },
        }),
      ],
      steps: [],
    },
    { code: "hip.both", name: "Both", sides: "both", key: null, measures: [], steps: [] },
  ],
} as unknown as Catalogue;

const record = {
  id: "screen",
  entries: [
    { test: "ankle.press", side: "right", values: { pressed: ["atfl", "cfl"], tender: ["atfl"] } },
    { test: "hip.bend", side: "left", values: { thigh: [8, 9], knee: 84 } },
    { test: "hip.bend", side: "right", values: { knee: 95 } },
    { test: "hip.both", declined: "no time" },
  ],
} as unknown as Screen["record"];

const flag = (code: string, side: "left" | "right" | null, at: string): Flag =>
  ({ code, side, because: [{ at, rule: "X1", says: "because" }], sources: [] }) as unknown as Flag;

const found = (test: string, code: string, verdict: string) => ({ test, measure: code, verdict });

const reading = {
  flags: [flag("tight", "left", "entries[1]"), flag("danger", null, "intake.red_flags")],
  ruled_down: [
    { code: "tight", side: "right", because: [] },
    { code: "broken", side: "right", because: [] },
  ],
  retake: [
    { test: "hip.bend", side: "right", reason: "back_not_flat" },
    { test: "ankle.press", side: "left", reason: "trials_disagree" },
  ],
  differences: [
    found("hip.bend", "knee", "real_matters"),
    found("hip.bend", "thigh", "within_error"),
    found("ankle.press", "girth", "real_small"),
  ],
  actions: [],
  ask: null,
  coverage: { planned: 3, done: 2, declined: 0, open: ["hip.both", "hip.bend"], unexamined: [] },
} as unknown as Reading;

describe("the ledger", () => {
  const { flagged, cleared, recorded } = ledgerRows(reading, record, catalogue);

  it("has a row a finding, both sides in it, and what is only cleared by itself", () => {
    expect(
      flagged.map((row) => [row.code, Object.keys(row.flags), Object.keys(row.ruledDown)]),
    ).toEqual([["tight", ["left"], ["right"]]]);
    expect(cleared.map((row) => row.code)).toEqual(["broken"]);
  });

  it("shows the measure that differs, with the step that draws it", () => {
    const ground = flagged[0]?.ground;
    expect([ground?.test.code, ground?.measure?.code, ground?.step?.figure?.kind]).toEqual([
      "hip.bend",
      "knee",
      "knee",
    ]);
    expect(flagged[0]?.difference?.measure).toBe("knee");
  });

  it("leaves nothing out that no row shows", () => {
    const { real, within } = otherDifferences(reading, flagged);
    expect(real.map((each) => each.measure)).toEqual(["girth"]);
    expect(within.map((each) => each.measure)).toEqual(["thigh"]);
    expect(otherRetakes(reading, flagged).map((each) => each.test)).toEqual(["ankle.press"]);
    expect(retakesOf(reading, flagged[0]?.ground ?? null, "right")).toHaveLength(1);
    expect(retakesOf(reading, flagged[0]?.ground ?? null, "left")).toEqual([]);
  });

  it("never takes one side's value for the other's", () => {
    const bend = catalogue.tests[0];
    if (!bend) throw new Error("no test");
    expect(figureNumbers(bend, recorded("hip.bend", "left"), "mean")).toEqual({
      thigh: 8.5,
      knee: 84,
    });
    expect(figureNumbers(bend, recorded("hip.bend", "right"), "mean")).toEqual({
      thigh: null,
      knee: 95,
    });
  });

  it("tells what belongs to no side of both, and says what was pressed", () => {
    const told = recordsOf(record, catalogue);
    expect([told("hip.both", "left").declined, told("hip.both", "right").declined]).toEqual([
      "no time",
      "no time",
    ]);
    const press = catalogue.tests[1];
    if (!press) throw new Error("no test");
    expect(recordedWords(press, told("ankle.press", "right"), "mean")).toBe(
      "2 of 2 pressed, ATFL tender",
    );
    expect(recordedWords(press, told("ankle.press", "left"), "mean")).toBeNull();
  });

  it("finds the entry a reason points at, and none for the story", () => {
    expect(entryAt(record, "entries[2].values")).toEqual({ test: "hip.bend", side: "right" });
    expect(entryAt(record, "entries[99]")).toBeNull();
    expect(entryAt(record, "intake.red_flags")).toBeNull();
  });
});

describe("before signing", () => {
  const action = { code: "emergency.chest", side: null, urgency: "emergency" };
  const urgent = { ...reading, actions: [action] } as unknown as Reading;
  const step = {
    id: "s",
    on: null,
    until: null,
    at_time: null,
    whom: "",
    note: "why",
    by: "K.",
    at: "",
  };
  const standing = {
    action: "emergency.chest",
    side: null,
    arranged: null,
    again: null,
    closed: null,
  };
  const screen = (left: typeof step | null) =>
    ({ arrangements: [{ ...standing, left }] }) as unknown as Screen;

  it("names what is open; a reason is enough to sign, and nobody has it in hand", () => {
    expect(openItems(urgent, screen(null))).toEqual({
      actions: [action],
      tests: ["hip.both", "hip.bend"],
      questions: 0,
    });
    expect(openItems(urgent, screen(step)).actions).toEqual([]);
    expect(isInHand(standingOf(screen(step), action as never))).toBe(false);
    expect(newestStep(standingOf(screen(step), action as never))?.does).toBe("left");
  });

  it("declines a test on every side it is asked on", () => {
    const answers = declines(catalogue, ["hip.both", "hip.bend"], "no time", (place) => place);
    expect(answers.map((each) => [each.test, each.side, each.value])).toEqual([
      ["hip.both", null, "no time"],
      ["hip.bend", "left", "no time"],
      ["hip.bend", "right", "no time"],
    ]);
    expect(new Set(answers.map((each) => each.id)).size).toBe(3);
  });

  it("says that nothing was planned, never nought of nought", () => {
    const none = { ...reading.coverage, planned: 0, done: 0 };
    expect(coverageWords(none)).toBe("nothing planned");
    expect(coverageWords({ ...reading.coverage, declined: 1 })).toBe(
      "2 of 3 begun, 1 not done with a reason",
    );
  });

  it("says who sees to it, when and how", () => {
    const booked = { ...step, on: "2026-09-16", at_time: "10:15", whom: "her doctor", note: "" };
    expect(stepWords("arranged", booked)).toBe("her doctor on 16 Sept 2026, 10:15");
    expect(stepWords("closed", step)).toBe("Closed by K.: why");
  });
});

describe("how much a sign can say", () => {
  const sign = (parts: Partial<Sign>): Sign =>
    ({ result: "positive", least: "hardly", most: "some", probability: null, ...parts }) as Sign;

  it("is solid as far as every study goes, broken as far as one does", () => {
    expect(rungsOf(sign({}))).toEqual({ up: true, solid: 0, reached: 2 });
    expect(rungsOf(sign({ result: "negative", least: "a lot", most: "a lot" }))).toEqual({
      up: false,
      solid: 3,
      reached: 3,
    });
  });

  it("is said in words, and nothing where no use was shown", () => {
    expect(ratioWords(sign({}))).toBe("hardly more likely, at most some");
    expect(ratioWords(sign({ least: "no use shown", most: "no use shown" }))).toBe("no use shown");
    expect(movedWords(sign({ probability: { start: 0.2, low: 0.31, high: 0.58 } }))).toBe(
      "20 % → 31 to 58 %",
    );
    expect(movedWords(sign({}))).toBeNull();
  });
});

describe("what follows by arithmetic", () => {
  const follows = { code: "x", label: "X", test: "hip.bend", left: 0.894, right: null };

  it("is said with its unit, ratios to the hundredth, and never as nothing where a part is missing", () => {
    expect(followsWords({ ...follows, unit: "1" }, "left")).toBe("0.89");
    expect(followsWords({ ...follows, unit: "N·m/kg" }, "left")).toBe("0.89 N·m/kg");
    expect(followsWords({ ...follows, unit: "deg", left: -4.26 }, "left")).toBe("−4.3°");
    expect(followsWords({ ...follows, unit: "percent", left: 0 }, "left")).toBe("0 %");
    expect(followsWords({ ...follows, unit: "deg" }, "right")).toBe("not known");
  });
});
