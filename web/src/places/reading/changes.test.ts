import { describe, expect, it } from "vitest";
import type { Catalogue, Compared } from "../../api/catalogue";
import { type Change, changeCautions, changedRows, changeWords, leftOutWords } from "./changes";

const measure = { label: "thigh", kind: "angle", unit: "deg", code: "m" } as unknown as Compared;
const catalogue = {
  tests: [{ code: "t", measures: [measure, { ...measure, code: "n" }], derived: [] }],
} as unknown as Catalogue;

const change = (more: Partial<Change>): Change =>
  ({
    test: "t",
    measure: "m",
    side: "left",
    verdict: "changed",
    why: null,
    baseline: { record: "r", date: "2026-03-02", why: "" },
    before: 12,
    now: 2,
    difference: -10.4,
    mdc95: 5.54,
    worse: false,
    matters: true,
    same_examiner: true,
    growing: false,
    ...more,
  }) as Change;

describe("what has changed", () => {
  it("keeps a row where either side changed, with both sides in it", () => {
    const right = change({ side: "right", verdict: "within_error" });
    const other = change({ measure: "n", verdict: "within_error" });
    const rows = changedRows([change({}), right, other], catalogue);
    expect(rows.map((row) => [row.measure, Object.keys(row.sides)])).toEqual([
      [measure, ["left", "right"]],
    ]);
  });

  it("leaves out what the catalogue does not know", () => {
    expect(changedRows([change({ test: "gone" }), change({ measure: "gone" })], catalogue)).toEqual(
      [],
    );
  });

  it("says by how much, which way and since when", () => {
    expect(changeWords(change({}), measure)).toBe(
      "10° for the better since 2 Mar 2026, error 5.5°",
    );
    expect(changeWords(change({ worse: true }), measure)).toContain("for the worse");
    expect(changeWords(change({ worse: null }), measure)).toBe(
      "differs by 10° since 2 Mar 2026, error 5.5°",
    );
    const noise = change({ verdict: "within_error" });
    expect(changeWords(noise, measure)).toBe("within error since 2 Mar 2026");
    const apart = change({ verdict: "not_comparable", why: "Done by palms then, by folds now." });
    expect(changeWords(apart, measure)).toBe("Done by palms then, by folds now.");
  });

  it("says what to keep in mind, of a change only", () => {
    const doubtful = { matters: false, same_examiner: false, growing: true };
    expect(changeCautions(change(doubtful))).toEqual([
      "Real, but small.",
      "Another examiner then.",
      "Still growing.",
    ]);
    expect(changeCautions(change({ same_examiner: null }))).toEqual([]);
    expect(changeCautions(change({ ...doubtful, verdict: "within_error" }))).toEqual([]);
  });

  it("counts what is left out and says why once", () => {
    const apart = change({ verdict: "not_comparable", why: "Seen, not measured, then." });
    expect(leftOutWords([change({}), change({ verdict: "within_error" }), apart, apart])).toBe(
      "1 value within error. 2 not compared: Seen, not measured, then.",
    );
    expect(leftOutWords([change({})])).toBeNull();
  });
});
