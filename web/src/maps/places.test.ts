import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import type { Test } from "../api/catalogue";
import { codesOn, fieldsOn, spotOf, viewsFor } from "./places";

const TESTS = JSON.parse(readFileSync("../docs/catalogue.json", "utf8")) as Test[];

describe("every place the catalogue answers on a drawing", () => {
  const spotted = TESTS.flatMap((test) =>
    test.steps.flatMap((step) => (step.map ? [{ name: test.code, test, map: step.map }] : [])),
  );
  it.each(spotted)("$name finds each of its places in one of its views", ({ test, map }) => {
    const key = test.measures.find((measure) => measure.code === test.key);
    const codes = key ? key.choices.map((choice) => choice.code) : map.measures;
    for (const code of codes) {
      const on = map.views.filter((view) => codesOn(map.points, view).includes(code));
      expect(on, code).toHaveLength(1);
      for (const view of on) {
        const left = spotOf(map.points, code, view, "left");
        const right = spotOf(map.points, code, view, "right");
        expect((left?.left ?? 0) + (right?.left ?? 0)).toBeCloseTo(100);
      }
    }
  });

  it("shades every field of the skin it asks about", () => {
    const sensation = spotted.find(({ map }) => map.points === "fields");
    const drawn = (sensation?.map.views ?? []).flatMap((view) =>
      fieldsOn(view).map(({ code }) => code),
    );
    expect(new Set(drawn)).toEqual(new Set(sensation?.map.measures));
  });
});

describe("where it hurts", () => {
  const SITES = ["groin", "lateral_hip", "buttock", "knee"];
  it("is found on near views first, and every site on one of them", () => {
    const views = viewsFor("pain_hip", SITES);
    expect(views[0]).not.toMatch(/^body_/);
    for (const code of SITES) {
      expect(views.some((view) => codesOn("pain_hip", view).includes(code))).toBe(true);
    }
    expect(viewsFor("pain_hip", ["nowhere"])).toEqual([]);
  });
});
