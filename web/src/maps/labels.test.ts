import { describe, expect, it } from "vitest";
import { labelSpots, linesOf, reaches, type Spotted } from "./labels";
import { boxOf, spotOf } from "./places";
import data from "./points.json";

const at = (code: string, left: number, top: number, first = false): Spotted => ({
  code,
  label: code,
  left,
  top,
  first,
});

describe("names on a drawing", () => {
  it("stand after their mark, and before it near the far edge", () => {
    const spots = labelSpots([at("calcaneus", 10, 50), at("achilles", 90, 50)], 320, 400);
    expect(spots.get("calcaneus")).toBe("after");
    expect(spots.get("achilles")).toBe("before");
  });

  it("give way to each other and to marks", () => {
    const spots = labelSpots([at("sinus tarsi", 20, 50), at("cfl", 36, 50)], 320, 400);
    expect(spots.get("sinus tarsi")).toBe("above");
    expect(spots.get("cfl")).toBe("after");
  });

  it("are left out where there is no room, what hurts last", () => {
    const crowd = [at("one place", 48, 50), at("second place", 50, 51), at("third place", 52, 52)];
    const spots = labelSpots([...crowd, at("what hurts", 50, 50, true)], 110, 60);
    expect(spots.has("what hurts")).toBe(true);
    expect(spots.size).toBeLessThan(4);
  });

  it("are reached without touching a neighbour", () => {
    const near = reaches([at("cfl", 50, 50), at("ptfl", 60, 50), at("heel", 90, 90)], 200, 200);
    expect(near.get("cfl")).toBeCloseTo(20);
    expect(near.get("ptfl")).toBeCloseTo(20);
    expect(near.get("heel")).toBe(44);
  });

  it("are broken at their spaces", () => {
    expect(linesOf("Lateral malleolus posterior")).toEqual(["Lateral", "malleolus", "posterior"]);
    expect(linesOf("Sinus tarsi")).toEqual(["Sinus tarsi"]);
  });

  it("a third of the points and more are named on every drawing of the desk", () => {
    const named: Record<string, number> = {};
    for (const [list, points] of Object.entries(data.lists)) {
      const views = new Set(Object.values(points).flatMap((spots) => Object.keys(spots)));
      for (const view of views) {
        const [width, height] = boxOf(view);
        const spotted = Object.keys(points).flatMap((code) => {
          const spot = spotOf(list, code, view, "left");
          return spot ? [{ code, label: code.replaceAll("_", " "), ...spot, first: false }] : [];
        });
        const spots = labelSpots(spotted, 330, (330 / width) * height);
        named[`${list} ${view}`] = spots.size / spotted.length;
      }
    }
    expect(Object.entries(named).filter(([, share]) => share < 0.35)).toEqual([]);
  });
});
