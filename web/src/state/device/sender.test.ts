import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Problem } from "../../api/problem";
import type { Answer, Written } from "../../api/screens";
import { memory } from "./memory";
import { Outbox } from "./outbox";
import { Sender } from "./sender";

const WRITTEN: Written = { revision: 2, late: [], beside: [], skew_seconds: null };
const answer = (id: string): Answer => ({
  id,
  test: "made.up",
  side: "left",
  field: "values.reach",
  value: 8,
});
const away = () => Promise.reject(new Problem(0, "no-server", "The server does not answer."));

function setUp() {
  const outbox = new Outbox(memory(), { clinic: "c", user: "u" });
  const write = vi.fn(async (_screen: string, _answers: Answer[]) => WRITTEN);
  return { outbox, write, sender: new Sender(outbox, "device", write) };
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe("the sender", () => {
  it("waits longer each time, never longer than eight seconds, and begins anew after one that arrived", async () => {
    const { outbox, write, sender } = setUp();
    write.mockImplementation(away);
    outbox.put("s", [answer("a")]);
    sender.wake();
    await vi.advanceTimersByTimeAsync(0);
    for (const pause of [500, 1000, 2000, 4000, 8000, 8000]) {
      const before = write.mock.calls.length;
      await vi.advanceTimersByTimeAsync(pause - 1);
      expect(write).toHaveBeenCalledTimes(before);
      await vi.advanceTimersByTimeAsync(1);
      expect(write).toHaveBeenCalledTimes(before + 1);
    }
    write.mockImplementation(async () => WRITTEN);
    await vi.advanceTimersByTimeAsync(8000);
    expect(outbox.list()).toEqual([]);
    write.mockClear();
    write.mockImplementation(away);
    outbox.put("s", [answer("b")]);
    sender.wake();
    await vi.advanceTimersByTimeAsync(500);
    expect(write).toHaveBeenCalledTimes(2);
  });

  it("keeps what a token that is not this session's any more could not write, and tries again", async () => {
    const { outbox, write, sender } = setUp();
    write.mockRejectedValueOnce(new Problem(403, "wrong-token", "Not this session."));
    outbox.put("s", [answer("a")]);
    sender.wake();
    await vi.advanceTimersByTimeAsync(0);
    expect(sender.state.getState()).toBe("waiting");
    expect(outbox.list()).toHaveLength(1);
    await vi.advanceTimersByTimeAsync(500);
    expect(outbox.list()).toEqual([]);
  });

  it("sends nothing more once its owner has left, whoever wakes it", async () => {
    const { outbox, write, sender } = setUp();
    outbox.put("s", [answer("a")]);
    sender.stop();
    sender.wake();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(write).not.toHaveBeenCalled();
    expect(outbox.list()).toHaveLength(1);
  });

  it("does not begin again by itself when its owner left while it waited", async () => {
    const { outbox, write, sender } = setUp();
    write.mockImplementation(away);
    outbox.put("s", [answer("a")]);
    sender.wake();
    await vi.advanceTimersByTimeAsync(0);
    sender.stop();
    write.mockClear();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(write).not.toHaveBeenCalled();
  });
});
