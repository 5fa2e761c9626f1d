import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import type { Measure } from "../../api/catalogue";
import type { Json } from "./fields";
import { dialOf, parseTrials, plain, shownNumber, signed, textOf, trialsOf } from "./parse";

interface Case {
  trials: Json;
  mean: number;
  median: number;
}

const FILE = new URL("../../../../tests/cases/shown_numbers.json", import.meta.url);
const CASES = JSON.parse(readFileSync(FILE, "utf-8")) as Case[];
const angle = { kind: "angle", unit: "deg", usual: [-20, 0] } as unknown as Measure;

describe("what is typed", () => {
  it.each([
    ["8", 8],
    ["+8", 8],
    ["-4", -4],
    ["−4", -4],
    ["12.5", 12.5],
    ["12,5", 12.5],
    [".5", 0.5],
    ["  7 ", 7],
    ["8 9 8", [8, 9, 8]],
    ["8; −4", [8, -4]],
  ])("%s is a value", (text, value) => {
    expect(parseTrials(text, null)).toEqual({ kind: "value", value });
  });

  it.each(["", "   "])("'%s' is nothing", (text) => {
    expect(parseTrials(text, null)).toEqual({ kind: "empty" });
  });

  it.each([
    ["-", "missing after −"],
    ["8 -", "missing after −"],
    ["abc", "“abc” is not a number"],
    ["8°", "not a number"],
    ["1e3", "not a number"],
    ["8 9 8 9 8 9 8 9 8 9 8", "At most 10"],
  ])("%s says what is wrong", (text, says) => {
    const parsed = parseTrials(text, null);
    expect(parsed.kind).toBe("fault");
    expect(parsed.kind === "fault" && parsed.problem).toContain(says);
  });

  it("is a raw reading with a dial, without a sign of its own", () => {
    const dial = { dial: "one_eighty_neutral", direction: -1 } as const;
    expect(parseTrials("172", dial)).toEqual({ kind: "value", value: { reading: 172, ...dial } });
    expect(parseTrials("-172", dial).kind).toBe("fault");
  });
});

describe("what is kept", () => {
  it("can be typed again", () => {
    for (const text of ["8", "−4 3", "12.5"]) {
      const parsed = parseTrials(text, null);
      expect(parsed.kind === "value" && textOf(parsed.value)).toBe(text);
    }
  });

  // The core's own test reads the same file: what is shown while the server is away is what it will read.
  it.each(CASES)("is shown as the core reads it: %j", ({ trials, mean, median }) => {
    expect(shownNumber(trials, "mean")).toBeCloseTo(mean, 9);
    expect(shownNumber(trials, "median")).toBeCloseTo(median, 9);
  });

  it("has no minus zero", () => {
    const still = { reading: 180, dial: "one_eighty_neutral", direction: -1 };
    expect(Object.is(trialsOf(still)[0], 0)).toBe(true);
  });

  it("tells its dial", () => {
    const raw = { reading: 98, dial: "ninety_neutral", direction: 1 } as const;
    expect(dialOf([raw, raw])).toEqual({ dial: "ninety_neutral", direction: 1 });
    expect(dialOf(8)).toBeNull();
  });

  it("is no number where none was given", () => {
    expect(shownNumber("looks_full", "mean")).toBeNull();
    expect(textOf("looks_full")).toBe("");
    expect(shownNumber(null, "mean")).toBeNull();
  });

  it("carries a true minus, one decimal, and a plus only around zero", () => {
    expect(plain(-4.04)).toBe("−4");
    expect(plain(-0.01)).toBe("0");
    expect(signed(8.333, angle)).toBe("+8.3");
    expect(signed(84, { ...angle, usual: [90, 115] })).toBe("84");
  });
});
