import { describe, expect, it } from "vitest";
import { heightOn, rulerFor } from "./ruler";

describe("the ruler between the lanes", () => {
  it("holds the target and what was reached, in round steps", () => {
    expect(rulerFor(30, [null, null])).toEqual({ top: 30, ticks: [0, 10, 20, 30] });
    expect(rulerFor(30, [42, 18]).top).toBe(50);
    expect(rulerFor(null, [24, 17])).toEqual({ top: 25, ticks: [0, 5, 10, 15, 20, 25] });
    expect(rulerFor(null, [null, null]).top).toBe(1);
  });

  it("never leaves its ends", () => {
    const ruler = rulerFor(30, [15]);
    expect(heightOn(ruler, 15)).toBe(0.5);
    expect(heightOn(ruler, 400)).toBe(1);
    expect(heightOn(ruler, -3)).toBe(0);
  });
});
