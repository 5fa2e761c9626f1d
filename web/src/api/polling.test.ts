import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { inTurns } from "./polling";

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

describe("work in turns", () => {
  it("asks one at a time: the next waits for the answer, and then the pause", async () => {
    let answer = () => {};
    const work = vi.fn(
      () =>
        new Promise<void>((done) => {
          answer = done;
        }),
    );
    const stop = inTurns(work, 1000);
    await vi.advanceTimersByTimeAsync(5000);
    expect(work).toHaveBeenCalledTimes(1);
    answer();
    await vi.advanceTimersByTimeAsync(999);
    expect(work).toHaveBeenCalledTimes(1);
    await vi.advanceTimersByTimeAsync(1);
    expect(work).toHaveBeenCalledTimes(2);
    stop();
  });

  it("leaves what never answers, and what fails, and asks again", async () => {
    const signals: AbortSignal[] = [];
    const work = vi.fn((signal: AbortSignal) => {
      signals.push(signal);
      return signals.length === 1 ? new Promise(() => {}) : Promise.reject(new Error("away"));
    });
    const stop = inTurns(work, 1000, 3000);
    await vi.advanceTimersByTimeAsync(4000);
    expect(signals[0]?.aborted).toBe(true);
    expect(work).toHaveBeenCalledTimes(2);
    await vi.advanceTimersByTimeAsync(1000);
    expect(work).toHaveBeenCalledTimes(3);
    stop();
  });

  it("ends with whoever asked", async () => {
    const work = vi.fn(async (_signal: AbortSignal) => {});
    const stop = inTurns(work, 1000);
    stop();
    expect(work.mock.calls[0]?.[0].aborted).toBe(true);
    await vi.advanceTimersByTimeAsync(9000);
    expect(work).toHaveBeenCalledTimes(1);
  });
});
