import { describe, expect, it } from "vitest";
import type { Measure } from "../../api/catalogue";
import { gradeOf, scored, ticksOf, ticksText } from "./score";

const SCORE = {
  label: "Score",
  source: "x",
  besides: null,
  items: [
    { measure: "sign", points: 1, at_least: null },
    { measure: "larger", points: 1, at_least: 30 },
    { measure: "other", points: -2, at_least: null },
    { measure: "look", points: null, at_least: null },
  ],
};
const MEASURES = [{ code: "look", plausible: [-2, 2] }] as unknown as Measure[];
const of = (values: Record<string, unknown>) =>
  scored(SCORE, MEASURES, (code) => values[code] ?? null);

describe("a score while it is answered", () => {
  it("adds nothing for what is open and says where it can end", () => {
    expect(of({})).toEqual({ total: 0, open: 4, lowest: -4, highest: 4 });
    expect(of({ sign: true })).toEqual({ total: 1, open: 3, lowest: -3, highest: 4 });
  });

  it("takes no as an answer of no points", () => {
    expect(of({ sign: false, other: false })).toEqual({
      total: 0,
      open: 2,
      lowest: -2,
      highest: 3,
    });
  });

  it("counts a number from its line on, trials taken together, and a grade as itself", () => {
    expect(of({ larger: 29 }).total).toBe(0);
    expect(of({ larger: [29, 31] }).total).toBe(1);
    expect(of({ look: -2, other: true }).total).toBe(-4);
  });
});

describe("points ticked one by one", () => {
  it("are kept as text and make no grade while one is open", () => {
    const ticks = ticksOf("yn-", 3);
    expect(ticks).toEqual([true, false, null]);
    expect(ticksText(ticks)).toBe("yn-");
    expect(gradeOf(ticks)).toBeNull();
    expect(gradeOf(ticksOf("yny", 3))).toBe(2);
    expect(ticksOf(null, 2)).toEqual([null, null]);
  });
});
