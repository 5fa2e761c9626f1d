import { describe, expect, it } from "vitest";
import type { Measure, Test } from "../../api/catalogue";
import type { Json } from "../../state/domain/fields";
import { type Place, placeKey } from "../../state/domain/fields";
import { changesFor, type Expected, expectedHere, type Standing } from "./expected";

const measure = (code: string, more: Partial<Measure>): Measure =>
  ({
    code,
    label: code,
    kind: "flag",
    allowed: [],
    points_for: [],
    grades: [],
    choices: [],
    per_side: true,
    ...more,
  }) as Measure;

function made(code: string, measures: Measure[], more: Partial<Test> = {}): Test {
  const steps = [{ code: "only", measures: measures.map((each) => each.code) }];
  const always = { position: "sitting", sides: "each", own_stop: false };
  return { code, name: code, measures, steps, ...always, ...more } as unknown as Test;
}

const look = made("look", [
  measure("swelling", { kind: "grade", plausible: [0, 3], normal: 0 }),
  measure("girth", { kind: "length" }),
  measure("wound", { normal: false }),
]);
const drawer = made("drawer", [measure("clunk", { normal: false })]);
const squeeze = made("squeeze", []);
const pulses = made("pulses", [measure("skin", { normal: false })], { own_stop: true });
const lying = made("lying", [measure("skin", { normal: false })], { position: "prone" });
const toes = made("toes", [measure("result", { normal: false })], { key: "result" });
const gait = made("gait", [measure("able", { normal: true, per_side: false })], { sides: "both" });
const bones = ["fibula", "tibia"].map((code) => ({ code, label: code }));
const palpation = made(
  "palpation",
  [
    measure("pressed", { kind: "choices", choices: bones }),
    measure("tender", {
      kind: "choices",
      choices: bones,
      normal: [],
      map: { points: "bones", views: ["leg"], pressed: "pressed" },
    }),
  ],
  { own_stop: true },
);

const nothing: Standing = { value: () => null, held: () => false };
const standing = (held: Record<string, Json>): Standing => ({
  value: (place: Place) => held[placeKey(place)] ?? null,
  held: () => false,
});
const named = (items: Expected[]) =>
  items.map(({ place, value }) => [place.test, place.side, place.field, value]);

describe("the rest as expected", () => {
  it("names what is expected of the position on both sides, and no number", () => {
    expect(named(expectedHere([look, drawer, lying], look, {}, nothing))).toEqual([
      ["look", "left", "values.swelling", 0],
      ["look", "right", "values.swelling", 0],
      ["look", "left", "values.wound", false],
      ["look", "right", "values.wound", false],
      ["drawer", "left", "values.clunk", false],
      ["drawer", "right", "values.clunk", false],
    ]);
  });

  it("leaves what a danger hangs on to its own stop", () => {
    const tests = (current: Test) =>
      new Set(expectedHere([look, pulses], current, {}, nothing).map(({ place }) => place.test));
    expect([...tests(look)]).toEqual(["look"]);
    expect([...tests(pulses)]).toEqual(["pulses", "look"]);
  });

  it("never touches what stands, what was not done, and what a gate holds", () => {
    const stands = standing({
      "drawer|left||values.clunk": true,
      "look|right||declined": "refused",
    });
    const found = expectedHere([look, drawer], drawer, {}, stands);
    expect(found.filter(({ place }) => place.test === "drawer")).toHaveLength(1);
    expect(found.some(({ place }) => place.test === "look" && place.side === "right")).toBe(false);
    const gated: Standing = { ...nothing, held: (_, side) => side === "right" };
    expect(expectedHere([drawer], drawer, {}, gated).map(({ place }) => place.side)).toEqual([
      "left",
    ]);
  });

  it("knows that what is asked once may have been said of a side", () => {
    const limp = standing({ "gait|left||values.able": false });
    expect(expectedHere([gait], gait, {}, limp)).toEqual([]);
  });

  it("leaves out what has a key: nobody said which toe", () => {
    expect(expectedHere([toes], toes, {}, nothing)).toEqual([]);
  });

  it("answers a test that is its pain alone by it", () => {
    expect(named(expectedHere([squeeze], squeeze, {}, nothing))[0]).toEqual([
      "squeeze",
      "left",
      "pain",
      { present: false },
    ]);
  });

  it("says of no tender point that all were pressed, and nothing where some were", () => {
    const [first] = expectedHere([palpation], palpation, {}, nothing);
    expect(changesFor(first ? [first] : [])).toEqual([
      { test: "palpation", side: "left", key: "", field: "values.tender", value: [] },
      {
        test: "palpation",
        side: "left",
        key: "",
        field: "values.pressed",
        value: ["fibula", "tibia"],
      },
      { test: "palpation", side: "left", key: "", field: "by_exception", value: true },
    ]);
    const some = standing({ "palpation|left||values.pressed": ["fibula"] });
    expect(expectedHere([palpation], palpation, {}, some).map(({ place }) => place.side)).toEqual([
      "right",
    ]);
  });

  it("marks each entry as written this way, once", () => {
    const marks = changesFor(expectedHere([look, gait], look, {}, nothing)).filter(
      ({ field }) => field === "by_exception",
    );
    expect(marks.map(({ test, side }) => [test, side])).toEqual([
      ["look", "left"],
      ["look", "right"],
      ["gait", null],
    ]);
  });
});
