import { describe, expect, it } from "vitest";
import {
  afterPress,
  markOf,
  type Pressing,
  pressingWords,
  restClear,
  shareTouched,
} from "./pressing";

const ALL = ["atfl", "cfl", "navicular"];
const NOTHING: Pressing = { tender: null, pressed: null };

describe("a finger on a point", () => {
  it("goes round: pressed, tender, sore and left alone, nothing", () => {
    let held = NOTHING;
    const seen = [];
    for (let tap = 0; tap < 4; tap += 1) {
      held = afterPress("atfl", held, ALL);
      seen.push(markOf("atfl", held, ALL));
    }
    expect(seen).toEqual(["clear", "tender", "sore", "open"]);
    expect(held).toEqual(NOTHING);
  });

  it("leaves the others as they are, in the catalogue's order", () => {
    const one = afterPress("navicular", NOTHING, ALL);
    const two = afterPress("atfl", one, ALL);
    expect(two).toEqual({ tender: [], pressed: ["atfl", "navicular"] });
    expect(afterPress("navicular", two, ALL).tender).toEqual(["navicular"]);
    expect(markOf("cfl", two, ALL)).toBe("open");
  });

  it("reads a list of what hurts alone as every point pressed", () => {
    const held: Pressing = { tender: ["cfl"], pressed: null };
    expect(ALL.map((code) => markOf(code, held, ALL))).toEqual(["clear", "tender", "clear"]);
    expect(afterPress("atfl", held, ALL)).toEqual({ tender: ["atfl", "cfl"], pressed: ALL });
  });

  it("counts what was touched, and never says none while points are left", () => {
    const part: Pressing = { tender: [], pressed: ["cfl"] };
    expect(shareTouched(part, ALL)).toBeCloseTo(1 / 3);
    expect(shareTouched(NOTHING, ALL)).toBe(0);
    expect(shareTouched({ tender: [], pressed: null }, ALL)).toBe(1);
    const label = (code: string) => code.toUpperCase();
    expect(pressingWords(part, ALL, label)).toBe("1 of 3 pressed, none tender");
    const sore: Pressing = { tender: ["atfl"], pressed: ["cfl"] };
    expect(pressingWords(sore, ALL, label)).toBe("1 of 3 pressed, ATFL tender");
  });

  it("clears the rest of a view and keeps what was found", () => {
    const held: Pressing = { tender: ["cfl"], pressed: ["cfl"] };
    expect(restClear(["atfl", "cfl"], held, ALL)).toEqual({
      tender: ["cfl"],
      pressed: ["atfl", "cfl"],
    });
    const sore: Pressing = { tender: ["atfl"], pressed: [] };
    expect(restClear(ALL, sore, ALL)).toEqual({ tender: ["atfl"], pressed: ["cfl", "navicular"] });
    expect(restClear([], NOTHING, ALL)).toEqual(NOTHING);
  });
});
