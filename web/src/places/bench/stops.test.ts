import { describe, expect, it } from "vitest";
import type { Test } from "../../api/catalogue";
import type { Fields } from "../../state/fields";
import { laneShare } from "./stops";

const measures = [
  { code: "distance" },
  { code: "angle", instead_of: "distance" },
  { code: "cheats" },
  { code: "hold", clock: { onset: "began" } },
  { code: "began" },
];
const lunge = {
  code: "lunge",
  sides: "each",
  measures,
  steps: [{ code: "only", measures: measures.map(({ code }) => code) }],
} as unknown as Test;
const squeeze = {
  ...lunge,
  code: "squeeze",
  measures: [],
  steps: [{ code: "only", measures: [] }],
} as unknown as Test;

const fields = (...keys: string[]): Fields =>
  new Map(keys.map((key) => [key, { value: 1, by: null, at: null }]));

describe("how far a lane of a stop is filled", () => {
  it("goes by what is asked, not by the first value", () => {
    const held = fields("lunge|left||values.distance");
    expect(laneShare(held, lunge, {}, "left")).toBeCloseTo(1 / 3);
    expect(laneShare(held, lunge, {}, "right")).toBe(0);
  });

  it("takes the other way of reading for the same thing", () => {
    const held = fields(
      "lunge|left||values.angle",
      "lunge|left||values.cheats",
      "lunge|left||values.hold",
    );
    expect(laneShare(held, lunge, {}, "left")).toBe(1);
  });

  it("is full where a reason says why not", () => {
    expect(laneShare(fields("lunge|right||declined"), lunge, {}, "right")).toBe(1);
  });

  it("fills by the points that were pressed, not by the first", () => {
    const points = ["a", "b", "c", "d"].map((code) => ({ code, label: code }));
    const tender = { code: "tender", choices: points, map: { views: ["leg"], pressed: "pressed" } };
    const palpation = {
      ...lunge,
      code: "palpation",
      measures: [tender, { code: "pressed", choices: points }],
      steps: [{ code: "only", measures: ["tender", "pressed"] }],
    } as unknown as Test;
    const held: Fields = new Map([
      ["palpation|left||values.tender", { value: [], by: null, at: null }],
      ["palpation|left||values.pressed", { value: ["a"], by: null, at: null }],
    ]);
    expect(laneShare(held, palpation, {}, "left")).toBe(0.25);
  });

  it("asks of pain where nothing else is asked", () => {
    expect(laneShare(fields(), squeeze, {}, "left")).toBe(0);
    expect(laneShare(fields("squeeze|left||pain"), squeeze, {}, "left")).toBe(1);
  });
});
