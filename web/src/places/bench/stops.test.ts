import { describe, expect, it } from "vitest";
import type { Catalogue } from "../../api/catalogue";
import type { Screen } from "../../api/screens";
import type { Fields } from "../../state/fields";
import { placeKey } from "../../state/fields";
import { stopsOf } from "./stops";

const catalogue = {
  tests: [
    { code: "lie", position: "supine" },
    { code: "hop", position: "standing" },
    { code: "walk", position: "standing" },
    { code: "sit", position: "sitting" },
  ],
} as unknown as Catalogue;
const screen = { record: { planned: ["walk", "lie"] } } as unknown as Screen;
const codes = (fields: Fields, opened: string | null = null) =>
  stopsOf(catalogue, screen, fields, opened).map((stop) => stop.test.code);

describe("the stops of a screen", () => {
  it("are those planned, by position", () => {
    expect(codes(new Map())).toEqual(["walk", "lie"]);
  });

  it("put what was opened or recorded without a plan after what was planned there", () => {
    const key = placeKey({ test: "sit", side: "left", key: "", field: "values.x" });
    const recorded = new Map([[key, { value: 1 }]]) as unknown as Fields;
    expect(codes(recorded, "hop")).toEqual(["walk", "hop", "sit", "lie"]);
  });

  it("keep the order of the plan within a position", () => {
    const other = { record: { planned: ["walk", "hop"] } } as unknown as Screen;
    expect(stopsOf(catalogue, other, new Map(), null).map((stop) => stop.test.code)).toEqual([
      "walk",
      "hop",
    ]);
    expect(catalogue.tests.map((test) => test.code)).toEqual(["lie", "hop", "walk", "sit"]);
  });
});
