import { afterEach, describe, expect, it, vi } from "vitest";
import type { Measure } from "../../api/catalogue";
import { clock, elapsed, hurtsNow, runsFor, startOrStop, stopClock } from "./clock";

const PLACE = {
  test: "made.up_hold",
  side: "right",
  key: "",
  field: "values.hold",
} as const;
const OTHER = { ...PLACE, side: "left" } as const;
const HOLD = {
  code: "hold",
  clock: { target: 30, longest: 60, onset: "began" },
} as unknown as Measure;

afterEach(() => {
  clock.setState(null, true);
  vi.restoreAllMocks();
});

function at(seconds: number): void {
  vi.spyOn(performance, "now").mockReturnValue(seconds * 1000);
}

describe("the clock of a hold", () => {
  it("starts, stops and writes what was held", () => {
    const write = vi.fn();
    at(100);
    startOrStop({ write }, PLACE, HOLD);
    expect(runsFor(PLACE)).toBe(true);
    at(118.24);
    startOrStop({ write }, PLACE, HOLD);
    expect(write).toHaveBeenCalledExactlyOnceWith([{ ...PLACE, value: 18.2 }]);
    expect(clock.getState()).toBeNull();
    expect(stopClock({ write })).toBe(false);
  });

  it("is one: another side's start stops it first and keeps what it had", () => {
    const write = vi.fn();
    at(0);
    startOrStop({ write }, PLACE, HOLD);
    at(42);
    startOrStop({ write }, OTHER, HOLD);
    expect(write).toHaveBeenCalledExactlyOnceWith([{ ...PLACE, value: 42 }]);
    expect(runsFor(OTHER)).toBe(true);
    expect(runsFor(PLACE)).toBe(false);
  });

  it("counts no further than the longest hold", () => {
    at(0);
    startOrStop({ write: vi.fn() }, PLACE, HOLD);
    const running = clock.getState();
    expect(running && elapsed(running, 75_000)).toBe(60);
  });

  it("marks when it began to hurt, and only pain where no clock runs", () => {
    const write = vi.fn();
    const pain = { ...PLACE, field: "pain", value: { present: true } };
    hurtsNow({ write }, PLACE, HOLD);
    expect(write).toHaveBeenLastCalledWith([pain]);
    at(0);
    startOrStop({ write }, PLACE, HOLD);
    at(12);
    hurtsNow({ write }, PLACE, HOLD);
    const began = { ...PLACE, field: "values.began", value: 12 };
    expect(write).toHaveBeenLastCalledWith([pain, began]);
  });
});
