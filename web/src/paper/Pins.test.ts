import { describe, expect, it } from "vitest";
import { type Pin, placed, RADIUS } from "./Pins";

const [WIDTH, HEIGHT] = [31, 100];
const pin = (number: number, side: Pin["side"], region: string): Pin => ({ number, side, region });

describe("numbers beside a body", () => {
  it("stand on the athlete's own side, as in a mirror", () => {
    const [left, right] = placed([pin(1, "left", "knee"), pin(2, "right", "knee")], WIDTH, HEIGHT);
    expect(left?.x).toBeLessThan(WIDTH / 2);
    expect(left?.numberX).toBeLessThan(0);
    expect(right?.x).toBeGreaterThan(WIDTH / 2);
    expect(right?.numberX).toBeGreaterThan(WIDTH);
  });

  it("never lie over each other, and stay on the drawing", () => {
    const many = Array.from({ length: 6 }, (_, at) => pin(at + 1, "right", "foot"));
    const found = placed(many, WIDTH, HEIGHT).map(({ numberY }) => numberY);
    for (const [at, y] of found.entries()) {
      expect(y).toBeLessThanOrEqual(HEIGHT);
      if (at > 0) expect(y - (found[at - 1] ?? 0)).toBeGreaterThanOrEqual(2 * RADIUS);
    }
  });

  it("leave out what lies nowhere on it", () => {
    expect(placed([pin(1, "left", "elsewhere")], WIDTH, HEIGHT)).toEqual([]);
  });
});
