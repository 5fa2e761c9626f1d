import { describe, expect, it } from "vitest";
import type { Catalogue } from "../../api/catalogue";
import { heardOf, hereAt, initials, others, othersAt, whereWords } from "./others";

const catalogue = {
  tests: [{ code: "ankle.wall", name: "Knee to wall" }],
} as unknown as Catalogue;
const maren = {
  name: "Maren Solli",
  device: "tablet",
  step: "bench",
  test: "ankle.wall",
  side: "right",
} as const;

describe("others at a screen", () => {
  it("are told by what they are asked, or by their step", () => {
    expect(whereWords(maren, catalogue)).toBe("Maren Solli: Knee to wall, R");
    expect(whereWords({ ...maren, step: "story", test: null, side: null }, catalogue)).toBe(
      "Maren Solli: story",
    );
    expect([initials("Maren Solli"), initials("K. van der Aalto"), initials("")]).toEqual([
      "MS",
      "KV",
      "",
    ]);
  });

  it("belong to their screen alone, and the same news draws nothing anew", () => {
    heardOf("one", [maren]);
    const first = others.getState();
    heardOf("one", [{ ...maren }]);
    expect(others.getState()).toBe(first);
    expect([othersAt(first, "one").length, othersAt(first, "two").length]).toEqual([1, 0]);
    heardOf("one", []);
    expect(othersAt(others.getState(), "one")).toEqual([]);
  });

  it("hear from here where the address is, with what is asked at the bench alone", () => {
    const asked = { test: "ankle.wall", side: "left" } as const;
    expect(hereAt("/screens/x/bench/other", asked)).toEqual({ step: "bench", ...asked });
    expect(hereAt("/screens/x/reading", asked)).toEqual({
      step: "reading",
      test: null,
      side: null,
    });
    expect(hereAt("/people", asked)).toBeNull();
  });
});
