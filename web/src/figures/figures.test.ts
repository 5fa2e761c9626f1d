import { describe, expect, it } from "vitest";
import { FIGURES } from ".";
import { away, SHEET, type Shape } from "./geometry";
import { kneePoint } from "./hanging_leg";

const level = kneePoint({ thigh: 0 });

describe("the hanging leg", () => {
  it("lifts the knee above level for plus and drops it for minus", () => {
    expect(kneePoint({ thigh: 10 }).y).toBeLessThan(level.y);
    expect(kneePoint({ thigh: -10 }).y).toBeGreaterThan(level.y);
    expect(kneePoint({ thigh: null })).toEqual(level);
  });

  it("bends the knee by the angle between thigh and shank", () => {
    const limbs = (joints: Record<string, number>) =>
      (FIGURES.hanging_leg?.(joints, {}) ?? []).filter(
        (shape): shape is Extract<Shape, { kind: "limb" }> =>
          shape.kind === "limb" && shape.width <= 17,
      );
    const shank = limbs({ thigh: 0, knee: 90 }).find(
      (limb) => limb.width === 12 && limb.tone === "body",
    );
    if (!shank) throw new Error("no shank");
    expect(shank.to.x).toBeCloseTo(shank.from.x);
    expect(shank.to.y).toBeGreaterThan(shank.from.y);
  });
});

describe("every figure", () => {
  it.each(Object.entries(FIGURES))("%s draws its usual range and moves", (_name, draw) => {
    const usual = {
      thigh: [-20, 0],
      knee: [90, 115],
      abduction: [-5, 5],
      rotation: [-10, 10],
      adduction: [10, 30],
    } as const;
    const still = draw({}, usual);
    const joints = { thigh: 12, knee: 70, abduction: 12, rotation: 12, adduction: 12 };
    const moved = draw(joints, usual);
    expect(still.some((shape) => shape.kind === "sector")).toBe(true);
    expect(still.some((shape) => shape.kind === "arc")).toBe(false);
    expect(moved.some((shape) => shape.kind === "arc")).toBe(true);
    expect(JSON.stringify(moved)).not.toBe(JSON.stringify(still));
    expect(JSON.stringify(moved)).not.toContain("null");
  });

  it("turns downwards for a growing angle", () => {
    const end = away({ x: 100, y: 50 }, 10, 90);
    expect(end.x).toBeCloseTo(100);
    expect(end.y).toBeCloseTo(60);
    expect(SHEET.width).toBeGreaterThan(SHEET.height);
  });
});
