import { describe, expect, it } from "vitest";
import type { Catalogue } from "../../api/catalogue";
import type { Route, Stop } from "../../api/screens";
import {
  clockWords,
  leaveOut,
  leftOutIn,
  legsOf,
  minutesWords,
  moved,
  neighbour,
  ownRoute,
  plannedIn,
  putBack,
  savedWords,
  searchTests,
  takeIn,
  turnsWords,
  whyFor,
} from "./route";
import type { Facts } from "./story";

const stop = (test: string, parts: Partial<Stop> = {}): Stop => ({
  test,
  position: "standing",
  sides: ["left", "right"],
  seconds: 60,
  turn: false,
  stage: "middle",
  why: "Because.",
  asked_for: [],
  waits_for: null,
  held: [],
  ...parts,
});
const routeOf = (...stops: Stop[]): Route =>
  ({ record: "r", stops, offered: [], left_out: [], plain_turns: 4, turns: 1 }) as unknown as Route;
const lying = { position: "side_lying" } as const;
const way = routeOf(
  stop("bone", { stage: "safety" }),
  stop("blood", { stage: "safety" }),
  stop("walk"),
  stop("drop", { ...lying, sides: ["right"] }),
  stop("drop", { ...lying, sides: ["left"] }),
  stop("hop"),
);
const facts = (told: Record<string, unknown>): Facts =>
  new Map(Object.entries(told).map(([field, value]) => [`route|||${field}`, value]));

describe("the way through", () => {
  it("is legs by position, side-lying once a side, and a position taken again", () => {
    const legs = legsOf(way.stops);
    expect(legs.map(({ position, side }) => `${position} ${side}`)).toEqual([
      "standing null",
      "side_lying right",
      "side_lying left",
      "standing null",
    ]);
    expect(legs[0]?.seconds).toBe(180);
    expect(legs.flatMap((leg) => leg.stops.map(({ number }) => number))).toEqual([
      1, 2, 3, 4, 5, 6,
    ]);
    // The other side of a test follows: it is carried with the first.
    expect(legs[2]?.stops[0]?.leads).toBe(false);
  });

  it("is reordered within safety only", () => {
    expect(moved(way, "hop", "walk")).toEqual(["bone", "blood", "hop", "walk", "drop"]);
    expect(moved(way, "walk", "hop")).toEqual(["bone", "blood", "drop", "hop", "walk"]);
    expect(moved(way, "hop", "bone")).toEqual(["bone", "blood", "walk", "drop", "hop"]);
    expect(moved(way, "bone", "walk")).toEqual(["bone", "blood", "walk", "drop", "hop"]);
    expect(moved(way, "nobody", "walk")).toEqual(["bone", "blood", "walk", "drop", "hop"]);
    expect(neighbour(way, "walk", -1)).toBeNull();
    expect(neighbour(way, "walk", 1)).toBe("drop");
    expect(neighbour(way, "hop", 1)).toBeNull();
  });

  it("says why for the side that is asked for, and only compares on the other", () => {
    const right = stop("x", { asked_for: ["right"], held: [{ side: "left", gate: "clot_doubt" }] });
    expect(whyFor({ ...right, held: [] }, "left")).toEqual({ says: "to compare", compares: true });
    expect(whyFor(right, "right")).toEqual({ says: "Because.", compares: false });
    expect(whyFor(right, "left")).toEqual({ says: "held", compares: false });
    expect(whyFor(stop("x", { sides: ["left"] }), "right").says).toBe("");
    expect(whyFor(stop("x"), "left").says).toBe("Because.");
  });

  it("counts minutes, turns and what they save", () => {
    expect([minutesWords(20), minutesWords(60), minutesWords(605)]).toEqual([
      "1 minute",
      "1 minute",
      "10 minutes",
    ]);
    expect([turnsWords(0), turnsWords(1), turnsWords(6)]).toEqual(["no turn", "1 turn", "6 turns"]);
    expect(clockWords(75)).toBe("1:15");
    expect(savedWords(way)).toBe("6 stops. 3 turns saved against the usual list.");
    expect(savedWords({ ...way, plain_turns: 1 })).toBe("6 stops.");
  });
});

describe("the plan", () => {
  const fields = (changes: { field: string; value: unknown }[]) =>
    changes.map(({ field, value }) => [field, value]);

  it("is made of what is proposed before anything is put into it", () => {
    expect(fields(takeIn(way, [], "squat"))[0]).toEqual([
      "order",
      ["bone", "blood", "walk", "drop", "hop"],
    ]);
    expect(fields(takeIn(way, ["walk"], "squat"))).toEqual([
      ["left_out.squat", null],
      ["planned.squat", true],
    ]);
  });

  it("loses a test with its reason, and takes it back where it was asked for", () => {
    expect(fields(leaveOut(["hop"], "hop", "sore"))).toEqual([
      ["left_out.hop", "sore"],
      ["planned.hop", null],
    ]);
    expect(fields(leaveOut([], "hop", "sore"))).toEqual([["left_out.hop", "sore"]]);
    expect(fields(putBack(way, [], "hop"))).toEqual([["left_out.hop", null]]);
    expect(fields(putBack(way, ["walk"], "hop"))).toContainEqual(["planned.hop", true]);
  });

  it("is replaced by a route of the clinic", () => {
    expect(fields(ownRoute(["walk", "hop"], ["hop", "bone"], true))).toEqual([
      ["planned.walk", null],
      ["order", ["hop", "bone"]],
      ["reasons_after", true],
    ]);
  });

  it("stands here with what waits, and without what was left out", () => {
    const told = facts({
      order: ["walk", "hop"],
      "planned.walk": true,
      "planned.drop": true,
      "left_out.hop": "sore",
    });
    expect(plannedIn(told)).toEqual(["walk", "drop"]);
    expect(leftOutIn(told)).toEqual(new Set(["hop"]));
    expect(plannedIn(facts({}))).toEqual([]);
  });
});

describe("a test is found", () => {
  const test = (code: string, name: string, other_names: string[] = [], purpose = "") =>
    ({ code, name, other_names, purpose }) as never;
  const catalogue = {
    tests: [
      test("a.one", "Heel rise", ["calf raise"], "Strength of the calf"),
      test("a.two", "Calf squeeze", [], "Whether the tendon holds"),
      test("a.three", "Step down", [], "How the leg is steered"),
    ],
  } as unknown as Catalogue;
  const found = (text: string, ...without: string[]) =>
    searchTests(catalogue, text, new Set(without)).map(({ code }) => code);

  it("by any name, those that begin with it first, then by what it is for", () => {
    expect(found("calf")).toEqual(["a.one", "a.two"]);
    expect(found("raise")).toEqual(["a.one"]);
    expect(found("leg steered")).toEqual(["a.three"]);
    expect(found("calf", "a.one")).toEqual(["a.two"]);
    expect(found("c")).toEqual([]);
    expect(found("nothing such")).toEqual([]);
  });
});
