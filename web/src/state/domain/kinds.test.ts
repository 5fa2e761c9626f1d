import { describe, expect, it } from "vitest";
import type { Measure } from "../../api/catalogue";
import { afterTap, isChosen, KINDS, kindOf, NONE, outOfRange } from "./kinds";

const made = (kind: Measure["kind"], more: Partial<Measure> = {}): Measure =>
  ({
    code: "m",
    label: "M",
    kind,
    unit: "1",
    allowed: [],
    choices: [],
    grades: [],
    points_for: [],
    ...more,
  }) as Measure;
const bones = [
  { code: "fibula", label: "Fibula" },
  { code: "tibia", label: "Tibia" },
];
const many = made("choices", { choices: bones });

describe("the kinds of measure", () => {
  it("offer what can be said, and none of many last", () => {
    const labels = (measure: Measure) =>
      kindOf(measure)
        .options(measure)
        .map((o) => o.label);
    expect(labels(many)).toEqual(["Fibula", "Tibia", "None of these"]);
    expect(labels(made("choice", { choices: bones }))).toEqual(["Fibula", "Tibia"]);
    expect(labels(made("grade", { plausible: [0, 3] }))).toEqual(["0", "1", "2", "3"]);
    expect(labels(made("grade", { plausible: [0, 1], grades: ["none", "some"] }))).toEqual([
      "0 none",
      "1 some",
    ]);
    expect(labels(made("grade", { plausible: [0, 90], allowed: [0, 45, 90] }))).toEqual([
      "0",
      "45",
      "90",
    ]);
    expect(labels(made("flag"))).toEqual(["Yes", "No"]);
    expect(labels(made("strength"))).toContain("4−");
    expect(labels(made("angle"))).toEqual([]);
  });

  it("take none of many as an answer, and the last one away as none", () => {
    const kind = kindOf(many);
    const [fibula, tibia, none] = kind.options(many);
    if (!none || !fibula || !tibia) throw new Error("no options");
    expect(none).toBe(NONE);
    expect(afterTap(kind, null, none)).toEqual([]);
    expect(isChosen(kind, [], none)).toBe(true);
    expect(isChosen(kind, null, none)).toBe(false);
    expect(afterTap(kind, [], none)).toBeNull();
    expect(afterTap(kind, [], fibula)).toEqual(["fibula"]);
    expect(afterTap(kind, ["fibula"], tibia)).toEqual(["fibula", "tibia"]);
    expect(afterTap(kind, ["fibula"], fibula)).toBeNull();
    expect(afterTap(kind, ["fibula"], none)).toEqual([]);
  });

  it("take a second tap of one back", () => {
    const kind = KINDS.flag;
    const yes = { label: "Yes", value: true };
    expect(afterTap(kind, null, yes)).toBe(true);
    expect(afterTap(kind, true, yes)).toBeNull();
  });

  it("are said by their own names", () => {
    const angle = made("angle", { unit: "deg", usual: [-5, 5] });
    expect(kindOf(angle).said([8, 10], angle, "mean")).toBe("+9°");
    expect(kindOf(angle).said("looks_full", angle, "mean")).toBe("looks full");
    expect(kindOf(many).said([], many, "mean")).toBe("None of these");
    expect(kindOf(many).said(["tibia"], many, "mean")).toBe("Tibia");
    expect(KINDS.flag.said(false, made("flag"), "mean")).toBe("No");
  });

  it("check what is plausible and what is whole", () => {
    expect(outOfRange(made("length", { plausible: [0, 200] }), 201)).toContain("outside");
    expect(outOfRange(made("count", { plausible: [0, 50] }), 2.5)).toContain("whole");
    const hanging = made("angle", { plausible: [-40, 90] });
    for (const [value, inside] of [
      [-40, true],
      [-41, false],
      [0, true],
      [90, true],
      [91, false],
    ] as const) {
      expect(outOfRange(hanging, value) === null, String(value)).toBe(inside);
    }
    expect(outOfRange(made("count", { plausible: [0, 50] }), [2, 3])).toBeNull();
  });
});
