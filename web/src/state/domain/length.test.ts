import { describe, expect, it } from "vitest";
import type { Measure } from "../../api/catalogue";
import { fromMillimetres, nextUnit, toMillimetres, unitFor } from "./length";
import { parseTrials, textOf } from "./parse";

describe("lengths in the unit the hand is used to", () => {
  it("are kept in millimetres, to a tenth", () => {
    expect(toMillimetres(9.2, "cm")).toBe(92);
    expect(toMillimetres(3.6, "in")).toBe(91.4);
    expect(toMillimetres(92, "mm")).toBe(92);
    expect(parseTrials("9,2 9.4", null, "cm")).toEqual({ kind: "value", value: [92, 94] });
  });

  it("come back as they were typed", () => {
    for (const [typed, unit] of [
      [9.25, "cm"],
      [3.6, "in"],
      [35.2, "in"],
      [88.45, "cm"],
    ] as const) {
      expect(fromMillimetres(toMillimetres(typed, unit), unit)).toBe(typed);
    }
    expect(textOf([92, 94], "cm")).toBe("9.2 9.4");
    expect(textOf(-4, "cm")).toBe("−0.4");
  });

  it("leave every other measure as it is", () => {
    expect(unitFor({ unit: "mm" } as Measure, "in")).toBe("in");
    expect(unitFor({ unit: "deg" } as Measure, "in")).toBe("mm");
    expect([nextUnit("mm"), nextUnit("cm"), nextUnit("in")]).toEqual(["cm", "in", "mm"]);
  });
});
