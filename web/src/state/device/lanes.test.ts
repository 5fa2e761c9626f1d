import { afterEach, describe, expect, it, vi } from "vitest";
import { memory } from "./memory";

/** A page opened on a device that keeps this. */
async function opened(kept: string | null) {
  const keep = memory();
  if (kept) keep.setItem("north-stride/lanes", kept);
  const heard: ((event: { key: string; newValue: string }) => void)[] = [];
  const reload = vi.fn();
  vi.stubGlobal("window", {
    localStorage: keep,
    location: { reload },
    addEventListener: (_name: string, hears: (typeof heard)[number]) => heard.push(hears),
  });
  vi.resetModules();
  return { lanes: await import("./lanes"), keep, heard, reload };
}

afterEach(() => vi.unstubAllGlobals());

describe("which lane stands first", () => {
  it("is the left until somebody chooses", async () => {
    for (const kept of [null, "left", "sideways"]) {
      const { lanes } = await opened(kept);
      expect(lanes.LANES).toEqual(["left", "right"]);
      expect(lanes.laneOf("left")).toBe("lane-left at-start");
      expect(lanes.laneOf("right")).toBe("lane-right at-end");
    }
  });

  it("moves the lane alone: whose it is stays said by its own class", async () => {
    const { lanes } = await opened("right");
    expect(lanes.LANES).toEqual(["right", "left"]);
    expect(lanes.laneOf("left")).toBe("lane-left at-end");
    expect(lanes.ofSide("right")).toBe("right at-start");
    expect(lanes.ofSide(null)).toBe("both");
  });

  it("is kept and drawn from a fresh start, in other tabs as well", async () => {
    const { lanes, keep, heard, reload } = await opened(null);
    lanes.chooseFirst("right");
    expect(keep.getItem("north-stride/lanes")).toBe("right");
    expect(reload).toHaveBeenCalledTimes(1);
    lanes.followLanes();
    heard[0]?.({ key: "north-stride/lanes", newValue: "left" });
    heard[0]?.({ key: "north-stride/theme", newValue: "dim" });
    expect(reload).toHaveBeenCalledTimes(1);
    heard[0]?.({ key: "north-stride/lanes", newValue: "right" });
    expect(reload).toHaveBeenCalledTimes(2);
  });
});
