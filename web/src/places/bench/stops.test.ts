import { describe, expect, it } from "vitest";
import type { Catalogue, Test } from "../../api/catalogue";
import type { Route } from "../../api/screens";
import type { Fields } from "../../state/domain/fields";
import { benchAt, inPositions, laneShare, progress, stopAt, stopsOf } from "./stops";

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

describe("the stops of the bench", () => {
  const test = (code: string, position: Test["position"]) =>
    ({ ...lunge, code, position, seconds: 30 }) as unknown as Test;
  const catalogue = {
    tests: [test("walk", "standing"), test("lie", "side_lying"), test("bend", "supine")],
  } as unknown as Catalogue;
  const at = (code: string, position: string, sides: string[]) => ({
    test: code,
    position,
    sides,
    seconds: 60,
  });
  const route = {
    stops: [
      at("lie", "side_lying", ["right"]),
      at("lie", "side_lying", ["left"]),
      at("walk", "standing", ["right", "left"]),
    ],
  } as unknown as Route;
  const planned = ["lie", "walk"];
  const stops = stopsOf(catalogue, { route, planned, fields: fields(), opened: null });

  it("are the route's, in its order, a side of side-lying each", () => {
    expect(stops.map((stop) => `${stop.test.code} ${stop.side}`)).toEqual([
      "lie right",
      "lie left",
      "walk null",
    ]);
    expect(inPositions(stops).map((position) => position.name)).toEqual([
      "Side-lying, right",
      "Side-lying, left",
      "Standing",
    ]);
    expect(benchAt("s", stops[1] as never)).toBe("/screens/s/bench/lie?side=left");
    expect(stopAt(stops, "lie", "left")).toBe(1);
    expect(stopAt(stops, "lie", null)).toBe(0);
    expect(stopAt(stops, "nobody", null)).toBe(0);
  });

  it("go on with what was recorded or opened beside it, and with the plan while the server is away", () => {
    const beside = { route, planned, fields: fields("bend|left||values.distance"), opened: null };
    expect(stopsOf(catalogue, beside).at(-1)?.test.code).toBe("bend");
    expect(stopsOf(catalogue, { ...beside, fields: fields(), opened: "bend" })).toHaveLength(4);
    const away = stopsOf(catalogue, { route: null, planned, fields: fields(), opened: null });
    expect(away.map((stop) => stop.test.code)).toEqual(["walk", "lie"]);
  });

  it("lead nowhere before anybody took the route as the plan", () => {
    expect(stopsOf(catalogue, { route, planned: [], fields: fields(), opened: null })).toEqual([]);
  });

  it("count as walked by what their own side lacks", () => {
    const share = (_: unknown, side: string) => (side === "right" ? 1 : 0);
    expect(progress(stops, share)).toEqual({ done: 1, seconds: 120 });
    expect(progress(stops, () => 1)).toEqual({ done: 3, seconds: 0 });
  });
});
