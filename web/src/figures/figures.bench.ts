// How long a figure takes to draw: each kind by its example, against writing one path of as many points.
import { bench, describe } from "vitest";
import { draw } from "./draw";
import { KINDS } from "./kinds";
import type { Kind } from "./kinds/kind";

const QUICK = { time: 40, warmupTime: 10 };
const POINTS = Array.from({ length: 3000 }, (_, i) => [Math.cos(i), Math.sin(i)] as const);

// A page that has drawn for a while: the first kind measured is not to pay for all.
const WARM = 40;

describe("figures", () => {
  for (let round = 0; round < WARM; round++) draw(KINDS.supine_flexion, { read: {} });
  for (const [name, kind] of Object.entries(KINDS) as [string, Kind][]) {
    const read = Object.fromEntries(
      Object.entries(kind.example).map(([joint, value]) => [joint, { value, usual: null }]),
    );
    bench(name, () => void draw(kind, { read }), QUICK);
  }
  bench(
    "floor",
    () => void POINTS.map(([x, y]) => `L${x.toFixed(1)} ${y.toFixed(1)}`).join(""),
    QUICK,
  );
});
