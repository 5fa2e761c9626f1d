import { describe, expect, it } from "vitest";
import { type BoardRow, byWords, criteriaOf, type HeldAgainst, leftToTest, meterOf } from "./board";

const held = (more: Partial<HeldAgainst>): HeldAgainst => ({
  test: "a",
  measure: "m",
  side: "right",
  value: 21,
  against: 28,
  by: 75,
  unit: "percent",
  limit: 90,
  enough: false,
  since: null,
  ...more,
});

const row = (criterion: string, state: BoardRow["state"], tests: string[] = []): BoardRow => ({
  criterion,
  state,
  tests,
  other: null,
  own: null,
});

const test = (date: string, rows: BoardRow[] | null) =>
  ({ screen: date, date, state: "signed", rows }) as const;

describe("the return board", () => {
  it("follows each criterion over the tests, and says where one could not be read", () => {
    const found = criteriaOf([
      test("2026-01-01", [row("hop", "not_met")]),
      test("2026-02-01", null),
      test("2026-03-01", [row("hop", "met"), row("lunge", "not_tested")]),
    ]);
    expect(found.map(({ code }) => code)).toEqual(["hop", "lunge"]);
    expect(found[0]?.over.map((each) => each?.state ?? null)).toEqual(["not_met", null, "met"]);
    expect(found[1]?.over.map((each) => each?.state ?? null)).toEqual([null, null, "not_tested"]);
    expect(criteriaOf([])).toEqual([]);
  });

  it("names what is left, each test once, apart from what was not met", () => {
    const criteria = criteriaOf([
      test("2026-03-01", [
        row("hop", "not_tested", ["a.hop"]),
        row("lunge", "not_tested", ["a.hop", "a.lunge"]),
        row("rise", "not_met", ["a.rise"]),
        row("pain", "met", ["a.pain"]),
      ]),
    ]);
    expect(leftToTest(criteria)).toEqual({ open: ["a.hop", "a.lunge"], again: ["a.rise"] });
  });

  it("says by how much, with its sign", () => {
    expect(byWords(held({}))).toBe("75 %");
    expect(byWords(held({ by: -43, unit: "mm" }))).toBe("−43 mm");
    expect(byWords(held({ by: 5.25, unit: "deg" }))).toBe("+5.3°");
    expect(byWords(held({ by: 3, unit: "points" }))).toBe("3 of 10");
  });

  it("stands within the zone where it is enough, and outside where it is not", () => {
    for (const each of [
      held({ by: 75, enough: false }),
      held({ by: 95, enough: true }),
      held({ by: -43, unit: "mm", limit: 15, enough: false }),
      held({ by: -9, unit: "mm", limit: 15, enough: true }),
    ]) {
      const { zone, at } = meterOf(each);
      expect(at >= zone[0] && at <= zone[1]).toBe(each.enough);
    }
  });
});
