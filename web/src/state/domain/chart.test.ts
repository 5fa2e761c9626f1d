import { describe, expect, it } from "vitest";
import type { Catalogue, Measure, Test } from "../../api/catalogue";
import type { Course, Line, LinePoint } from "../../api/course";
import { laneChart, scalesOf } from "./chart";
import { breakWords, drawn, movedOn, movedWords, type Pair, pairsOf, pointWords } from "./course";
import { errorWords } from "./course_words";

const measure = {
  code: "distance",
  label: "Distance",
  kind: "length",
  unit: "mm",
  usual: [100, 140],
  polarity: "lower",
} as unknown as Measure;
const test = { code: "ankle.wall", name: "Knee to wall", measures: [measure] } as unknown as Test;
const catalogue = { tests: [test] } as unknown as Catalogue;

const point = (date: string, value: number, parts: Partial<LinePoint> = {}): LinePoint => ({
  screen: date,
  date,
  value,
  validity: "valid",
  method: null,
  beyond: null,
  apart: [],
  ...parts,
});

const line = (side: Line["side"], points: LinePoint[], parts: Partial<Line> = {}): Line => ({
  test: "ankle.wall",
  measure: "distance",
  key: "",
  side,
  points,
  first: points[0]?.value ?? null,
  mdc95: 14,
  verdict: "within_error",
  difference: null,
  worse: null,
  ...parts,
});

const HURT = [
  point("2025-09-01", 109),
  point("2026-03-01", 62, { beyond: true }),
  point("2026-08-01", 94, { beyond: true }),
];
const right = line("right", HURT, { verdict: "changed", difference: -15, worse: true });
const left = line("left", [point("2025-09-01", 111), point("2026-08-01", 116, { beyond: false })]);
const pair: Pair = { key: "k", test, measure, which: "", lines: { left, right } };
const DAYS = ["2025-09-01", "2026-08-01"] as const;
const SIZE = { width: 400, height: 190 };

describe("a line drawn", () => {
  const scales = scalesOf(pair, DAYS, SIZE);

  it("has one height and one time on both sides", () => {
    const [mine, theirs] = [laneChart(left, right, scales), laneChart(right, left, scales)];
    expect(mine.spots[0]?.x).toBe(theirs.spots[0]?.x);
    expect(mine.ghost).toBe(theirs.stretches[0]);
    const ys = theirs.spots.map((spot) => spot.y);
    expect((ys[0] ?? 0) < (ys[2] ?? 0) && (ys[2] ?? 0) < (ys[1] ?? 0)).toBe(true);
    for (const spot of [...mine.spots, ...theirs.spots]) {
      expect(spot.x >= 0 && spot.x <= SIZE.width && spot.y >= 0 && spot.y <= SIZE.height).toBe(
        true,
      );
    }
  });

  it("has a band as high as the error on either side of the first value", () => {
    const { band } = laneChart(right, left, scales);
    expect(band?.y).toBeCloseTo(scales.y(123));
    expect((band?.y ?? 0) + (band?.height ?? 0)).toBeCloseTo(scales.y(95));
    expect(laneChart(line("left", HURT, { mdc95: null }), undefined, scales).band).toBeNull();
  });

  it("breaks where a value does not count or was taken another way, and leaves gaps", () => {
    const broken = line("left", [
      point("2025-09-01", 100, { method: "hands" }),
      point("2025-10-01", 101, { method: "hands" }),
      point("2025-11-01", 120, { validity: "void" }),
      point("2026-01-01", 102, { method: "hands" }),
      point("2026-02-01", 103, { method: "hands" }),
      point("2026-03-01", 90, { method: "tape", apart: ["method"] }),
      point("2026-04-01", 91, { method: "tape" }),
    ]);
    const { stretches, spots } = laneChart(broken, undefined, scales);
    expect(stretches.filter(Boolean)).toHaveLength(3);
    expect(spots).toHaveLength(7);
    expect(breakWords([broken])).toEqual(["1 Mar 2026 done another way than before"]);
    const seen = point("2026-04-01", 91, { apart: ["gap", "examiner"] });
    expect(pointWords(broken, seen, measure)).toContain("more than a year after the one before");
    expect(pointWords(broken, seen, measure)).toContain("by another examiner than before");
  });

  it("stays whole with one value, and with nothing at all on one side", () => {
    const one: Pair = { ...pair, lines: { left: line("left", [point("2026-01-01", 100)]) } };
    const alone = laneChart(
      one.lines.left,
      undefined,
      scalesOf(one, ["2026-01-01", "2026-01-01"], SIZE),
    );
    expect(alone.spots).toHaveLength(1);
    expect(Number.isFinite(alone.spots[0]?.x)).toBe(true);
    expect(laneChart(undefined, left, scales).spots).toEqual([]);
  });
});

describe("what a line says", () => {
  it("names what moved beyond error, for better or worse, and what did not", () => {
    expect(movedWords(right, measure)).toBe("15 mm less since 1 Sept 2025, for the worse");
    expect(movedWords(left, measure)).toBe("within error since 1 Sept 2025");
    expect(movedWords(line("left", HURT.slice(0, 1)), measure)).toBe("taken once");
    expect(movedOn([pair], "right").changed).toHaveLength(1);
    expect(movedOn([pair], "left")).toMatchObject({ changed: [], still: 1, apart: 0 });
  });

  it("says why two values are not compared", () => {
    const apart = (points: LinePoint[], parts: Partial<Line> = {}) =>
      movedWords(line("left", points, { verdict: "not_comparable", ...parts }), measure);
    const first = point("2025-09-01", 100);
    expect(apart([first, point("2026-01-01", 120, { validity: "void" })])).toContain("worthless");
    expect(apart([first, point("2026-01-01", 120)], { mdc95: null })).toContain("no error figure");
    expect(apart([first, point("2026-01-01", 120)])).toContain("another way");
  });

  it("reads a value out with its day and its worth", () => {
    const said = HURT.map((each) => pointWords(right, each, measure));
    expect(said[0]).toBe("1 Sept 2025, 109 mm, the first that counts");
    expect(said[1]).toBe("1 Mar 2026, 62 mm, beyond error of the first");
    expect(errorWords([right], measure)).toBe("error 14 mm");
    expect(errorWords([line("left", HURT, { mdc95: null })], measure)).toContain("no error figure");
  });

  it("puts what got worse first, and draws nothing that was taken once", () => {
    const once: Pair = { ...pair, key: "once", lines: { left: line("left", HURT.slice(0, 1)) } };
    const still: Pair = { ...pair, key: "still", lines: { left } };
    expect(drawn([once, still, pair]).map((each) => each.key)).toEqual(["k", "still"]);
  });

  it("pairs the sides of a measure, apart by bone or position", () => {
    const course = {
      lines: [left, right, { ...left, key: "tibia" }, { ...left, measure: "gone" }],
    } as unknown as Course;
    const pairs = pairsOf(course, catalogue);
    expect(pairs.map((each) => [each.which, Object.keys(each.lines)])).toEqual([
      ["", ["left", "right"]],
      ["tibia", ["left"]],
    ]);
  });
});
