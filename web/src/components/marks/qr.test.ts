import { describe, expect, it } from "vitest";
import { squaresOf } from "./qr";

describe("a code as squares", () => {
  it("has its three corners, its margin, and another text is another code", () => {
    const one = squaresOf("http://127.0.0.1:8600/pair#abc");
    const two = squaresOf("http://127.0.0.1:8600/pair#abd");
    expect(one.size).toBe(two.size);
    expect(one.path).not.toBe(two.path);
    const dark = new Set(
      one.path
        .split("M")
        .filter(Boolean)
        .map((square) => square.split("h")[0]),
    );
    const last = one.size - 5;
    for (const corner of ["4 4", `${last} 4`, `4 ${last}`]) expect(dark.has(corner)).toBe(true);
    for (const square of dark) {
      const [x = 0, y = 0] = (square ?? "").split(" ").map(Number);
      expect(Math.min(x, y) >= 4 && Math.max(x, y) <= last).toBe(true);
    }
  });
});
