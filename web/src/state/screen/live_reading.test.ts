import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Problem } from "../../api/problem";
import type { Preview } from "../../api/screens";
import { LiveReading } from "./live_reading";

const FOUND = { reading: {} } as Preview;
const away = () => Promise.reject(new Problem(0, "no-server", "The server does not answer."));

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe("a reading that is asked for", () => {
  it("is asked for again until the server is back", async () => {
    const ask = vi.fn().mockImplementationOnce(away).mockImplementationOnce(away);
    ask.mockResolvedValue(FOUND);
    const found = new LiveReading(ask).ask([]);
    await vi.advanceTimersByTimeAsync(5000);
    expect(await found).toBe(FOUND);
    expect(ask).toHaveBeenCalledTimes(3);
  });

  it("is nobody's once a newer question overtook it, however it ends", async () => {
    const answers: [(found: Preview) => void, (why: Problem) => void][] = [];
    const ask = vi.fn(() => new Promise<Preview>((done, fail) => answers.push([done, fail])));
    const live = new LiveReading(ask);
    const [first, second, third] = [live.ask([]), live.ask([]), live.ask([])];
    answers[0]?.[0](FOUND);
    answers[1]?.[1](new Problem(409, "unreadable", "This cannot be read."));
    answers[2]?.[0](FOUND);
    expect(await first).toBeNull();
    expect(await second).toBeNull();
    expect(await third).toBe(FOUND);
  });

  it("is not asked for again where it is refused, and that is said", async () => {
    const refused = new Problem(409, "unreadable", "This cannot be read.");
    const ask = vi.fn().mockRejectedValue(refused);
    expect(await new LiveReading(ask).ask([])).toBe(refused);
    expect(ask).toHaveBeenCalledTimes(1);
  });

  it("is not asked for without an end where the server fails on it", async () => {
    const fails = new Problem(500, "unexpected", "Something went wrong here.");
    const ask = vi.fn().mockRejectedValue(fails);
    const found = new LiveReading(ask).ask([]);
    await vi.advanceTimersByTimeAsync(60_000);
    expect(await found).toBe(fails);
    expect(ask).toHaveBeenCalledTimes(3);
  });

  it("waits no longer once a newer question overtook it, or the bench was closed", async () => {
    const ask = vi.fn().mockImplementationOnce(away).mockResolvedValueOnce(FOUND);
    const live = new LiveReading(ask);
    const first = live.ask([]);
    await vi.advanceTimersByTimeAsync(100);
    expect(await live.ask([])).toBe(FOUND);
    expect(await first).toBeNull();
    ask.mockImplementationOnce(away);
    const last = live.ask([]);
    await vi.advanceTimersByTimeAsync(100);
    live.stop();
    expect(await last).toBeNull();
    expect(ask).toHaveBeenCalledTimes(3);
  });
});
