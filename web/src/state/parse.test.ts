import { describe, expect, it } from "vitest";
import type { Measure } from "../api/catalogue";
import { dialOf, parseTrials, plain, shownNumber, signed, textOf, trialsOf } from "./parse";

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
    ["8 9 8 9 8 9", "At most 5"],
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

  it("reads the same as the core on every dial", () => {
    const read = (reading: number, dial: string, direction: number) =>
      trialsOf({ reading, dial, direction });
    expect(read(8, "zero_neutral", -1)).toEqual([-8]);
    expect(read(98, "ninety_neutral", 1)).toEqual([8]);
    expect(read(172, "one_eighty_neutral", 1)).toEqual([8]);
    expect(Object.is(read(180, "one_eighty_neutral", -1)[0], 0)).toBe(true);
  });

  it("tells its dial", () => {
    const raw = { reading: 98, dial: "ninety_neutral", direction: 1 } as const;
    expect(dialOf([raw, raw])).toEqual({ dial: "ninety_neutral", direction: 1 });
    expect(dialOf(8)).toBeNull();
  });

  it("is shown as mean or median", () => {
    expect(shownNumber([8, 9, 13], "mean")).toBe(10);
    expect(shownNumber([13, 8, 9], "median")).toBe(9);
    expect(shownNumber([8, 9, 10, 20], "median")).toBe(9.5);
    expect(shownNumber("looks_full", "mean")).toBeNull();
    expect(shownNumber(null, "mean")).toBeNull();
  });

  it("carries a true minus, one decimal, and a plus only around zero", () => {
    expect(plain(-4.04)).toBe("−4");
    expect(plain(-0.01)).toBe("0");
    expect(signed(8.333, angle)).toBe("+8.3");
    expect(signed(84, { ...angle, usual: [90, 115] })).toBe("84");
  });
});
