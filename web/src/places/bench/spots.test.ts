import { describe, expect, it } from "vitest";
import type { Measure, Step, Test } from "../../api/catalogue";
import { afterSpot, expectedAt, legendOf, spotMark, spotsOf, spotWords } from "./spots";

const choice = (code: string, normal: string, codes: string[]) =>
  ({
    code,
    label: code.toUpperCase(),
    kind: "choice",
    normal,
    allowed: [],
    grades: [],
    points_for: [],
    choices: codes.map((each) => ({ code: each, label: each })),
  }) as unknown as Measure;
const field = choice("sole", "same", ["less", "same", "absent"]);
const step = { code: "all", measures: ["sole"], map: { measures: ["sole"] } } as unknown as Step;
const plain = { code: "t", key: null, measures: [field] } as unknown as Test;

describe("answers at places of a drawing", () => {
  it("go from the expected to the last and back to none", () => {
    expect(expectedAt(field)).toBe("same");
    expect(afterSpot(field, null)).toBe("same");
    expect(afterSpot(field, "same")).toBe("less");
    expect(afterSpot(field, "absent")).toBeNull();
  });

  it("have a mark and words each, nothing standing being its own", () => {
    expect(spotMark(field, null)).toBe("open");
    expect(["same", "less", "absent"].map((value) => spotMark(field, value))).toEqual([
      "clear",
      "less",
      "absent",
    ]);
    expect(spotWords(field, null)).toBe("not yet");
    expect(legendOf(field).map(({ says }) => says)).toEqual(["not yet", "same", "less", "absent"]);
  });

  it("belong to a measure, or to a key of a keyed test", () => {
    const keys = [{ key: "", label: "" }];
    expect(spotsOf(plain, step, keys)).toMatchObject([{ code: "sole", label: "SOLE", key: "" }]);
    const keyed = { ...plain, key: "site" } as Test;
    const sites = [
      { key: "neck", label: "Neck" },
      { key: "tunnel", label: "Tunnel" },
    ];
    expect(spotsOf(keyed, step, sites)).toMatchObject([
      { code: "neck", label: "Neck", key: "neck", measure: { code: "sole" } },
      { code: "tunnel", label: "Tunnel", key: "tunnel", measure: { code: "sole" } },
    ]);
  });
});
