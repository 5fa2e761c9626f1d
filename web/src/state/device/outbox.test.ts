import { describe, expect, it, vi } from "vitest";
import { clockFor } from "../../api/device_clock";
import { Problem } from "../../api/problem";
import type { Answer, Written } from "../../api/screens";
import { Drafts, keepRefusal } from "./drafts";
import { memory } from "./memory";
import { Outbox } from "./outbox";
import { Sender } from "./sender";

const owner = { clinic: "c", user: "u" };
const written = (revision: number, more: Partial<Written> = {}): Written => ({
  revision,
  late: [],
  beside: [],
  skew_seconds: null,
  ...more,
});

const answer = (id: string, value: unknown = 8): Answer => ({
  id,
  test: "made.up",
  side: "left",
  field: "values.reach",
  value,
});

const settle = () => new Promise((done) => setTimeout(done));

describe("the outbox", () => {
  it("keeps answers in order, through a reload, for their owner alone", () => {
    const keep = memory();
    const outbox = new Outbox(keep, owner);
    outbox.put("s1", [answer("b"), answer("a")]);
    outbox.put("s2", [answer("c")]);
    const reloaded = new Outbox(keep, owner);
    expect(reloaded.list().map((waiting) => waiting.answer.id)).toEqual(["b", "a", "c"]);
    expect(reloaded.batch(1)).toEqual({ screen: "s1", answers: [answer("b")] });
    expect(new Outbox(keep, { clinic: "c", user: "other" }).list()).toEqual([]);
    expect(new Outbox(keep, { clinic: "other", user: "u" }).list()).toEqual([]);
  });
});

describe("what waits in great numbers", () => {
  const many = (count: number) =>
    Array.from({ length: count }, (_, at) => answer(`a${String(at).padStart(5, "0")}`));

  it("keeps its order through a reload and a clock that was set back", () => {
    vi.useFakeTimers();
    const keep = memory();
    vi.setSystemTime("2026-09-14T10:00:00Z");
    new Outbox(keep, owner).put("s1", [answer("first")]);
    vi.setSystemTime("2026-09-14T08:00:00Z");
    new Outbox(keep, owner).put("s1", [answer("second")]);
    const ids = new Outbox(keep, owner).list("s1").map((waiting) => waiting.answer.id);
    vi.useRealTimers();
    expect(ids).toEqual(["first", "second"]);
  });

  it("is not looked through at each key", () => {
    const keep = memory();
    new Outbox(keep, owner).put("s1", many(2000));
    const outbox = new Outbox(keep, owner);
    const read = vi.spyOn(keep, "getItem");
    outbox.put("s1", [answer("x")]);
    outbox.list("s1");
    outbox.count("s1");
    outbox.batch(100);
    outbox.drop(["x"]);
    expect(read).not.toHaveBeenCalled();
    expect(outbox.count("s1")).toBe(2000);
  });

  it("follows what another tab put in and took out", () => {
    const heard = new Set<(key: string) => void>();
    const keep = {
      ...memory(),
      onForeign: (listener: (key: string) => void) => {
        heard.add(listener);
        return () => heard.delete(listener);
      },
    };
    const [one, two] = [new Outbox(keep, owner), new Outbox(keep, owner)];
    const tell = (id: string) => {
      for (const each of heard) each(`north-stride/outbox/c/u/${id}`);
    };
    one.put("s1", [answer("a")]);
    tell("a");
    expect(two.count("s1")).toBe(1);
    one.drop(["a"]);
    tell("a");
    expect(two.list("s1")).toEqual([]);
    two.close();
    expect(heard.size).toBe(1);
  });
});

describe("the clock at sending", () => {
  const at = (time: string) => ({ ...answer("a"), at: time });

  it("is the device's own", () => {
    const now = Date.parse("2026-09-14T10:00:00Z");
    expect(clockFor([at("2026-09-14T09:59:00Z")], now)).toBe("2026-09-14T10:00:00.000Z");
  });

  it("is never before what was written by it", () => {
    const now = Date.parse("2026-09-14T08:00:00Z");
    expect(clockFor([at("2026-09-14T09:59:00Z")], now)).toBe("2026-09-14T09:59:00.000Z");
  });
});

describe("the sender", () => {
  it("sends until the outbox is empty and tells what arrived", async () => {
    const outbox = new Outbox(memory(), owner);
    outbox.put("s1", [answer("a"), answer("b")]);
    const write = vi.fn(async () => written(2));
    const sender = new Sender(outbox, "device", write);
    const arrived = vi.fn();
    sender.onDelivered(arrived);
    sender.wake();
    await settle();
    expect(write).toHaveBeenCalledExactlyOnceWith(
      "s1",
      [answer("a"), answer("b")],
      "device",
      expect.any(String),
    );
    expect(arrived).toHaveBeenCalledOnce();
    expect(outbox.list()).toEqual([]);
    expect(sender.state.getState()).toBe("idle");
  });

  it("waits while the server is away and goes on by itself", async () => {
    vi.useFakeTimers();
    const outbox = new Outbox(memory(), owner);
    outbox.put("s1", [answer("a")]);
    const write = vi
      .fn()
      .mockRejectedValueOnce(new Problem(0, "no-server", "away"))
      .mockRejectedValueOnce(new Problem(503, "no-database", "away"))
      .mockResolvedValue(written(1));
    const sender = new Sender(outbox, "device", write);
    sender.wake();
    await vi.advanceTimersByTimeAsync(0);
    expect(sender.state.getState()).toBe("waiting");
    expect(outbox.list()).toHaveLength(1);
    await vi.advanceTimersByTimeAsync(5000);
    expect(sender.state.getState()).toBe("idle");
    expect(write).toHaveBeenCalledTimes(3);
    vi.useRealTimers();
  });

  it("begins again with short pauses once something has arrived", async () => {
    vi.useFakeTimers();
    const outbox = new Outbox(memory(), owner);
    const away = () => Promise.reject(new Problem(0, "no-server", "away"));
    const write = vi.fn<() => Promise<Written>>();
    for (let times = 0; times < 4; times += 1) write.mockImplementationOnce(away);
    write.mockResolvedValueOnce(written(1));
    write.mockImplementationOnce(away);
    write.mockResolvedValue(written(2));
    const sender = new Sender(outbox, "device", write);
    outbox.put("s1", [answer("a")]);
    sender.wake();
    await vi.advanceTimersByTimeAsync(500 + 1000 + 2000 + 4000);
    expect(write).toHaveBeenCalledTimes(5);
    outbox.put("s1", [answer("b")]);
    sender.wake();
    await vi.advanceTimersByTimeAsync(499);
    expect(write).toHaveBeenCalledTimes(6);
    await vi.advanceTimersByTimeAsync(1);
    expect(write).toHaveBeenCalledTimes(7);
    vi.useRealTimers();
  });

  it("does not lose a wake-up that comes between two sends", async () => {
    const outbox = new Outbox(memory(), owner);
    const write = vi.fn(async () => written(1));
    const sender = new Sender(outbox, "device", write);
    outbox.put("s1", [answer("a")]);
    // Told it is empty, somebody writes once more before the sender has come to rest.
    const stop = sender.onEmpty(() => {
      stop();
      outbox.put("s1", [answer("b")]);
      sender.wake();
    });
    sender.wake();
    await settle();
    expect(write).toHaveBeenCalledTimes(2);
    expect(outbox.list()).toEqual([]);
  });

  it("sends nothing more once its owner has left", async () => {
    const outbox = new Outbox(memory(), owner);
    const sent: string[] = [];
    let arrive = () => {};
    const write = vi.fn((_screen: string, answers: Answer[]) => {
      sent.push(...answers.map((each) => each.id));
      return new Promise<Written>((done) => {
        arrive = () => done(written(1));
      });
    });
    const sender = new Sender(outbox, "device", write);
    outbox.put("s1", [answer("a")]);
    outbox.put("s2", [answer("b")]);
    sender.wake();
    await settle();
    sender.stop();
    arrive();
    await settle();
    sender.wake();
    await settle();
    expect(sent).toEqual(["a"]);
    expect(outbox.list().map((waiting) => waiting.answer.id)).toEqual(["b"]);
  });

  it("keeps what waits when somebody else is signed in", async () => {
    const outbox = new Outbox(memory(), owner);
    outbox.put("s1", [answer("a")]);
    const write = vi.fn().mockRejectedValue(new Problem(403, "another-user", "not yours"));
    const sender = new Sender(outbox, "device", write);
    sender.wake();
    await settle();
    expect(sender.state.getState()).toBe("another-user");
    expect(outbox.list()).toHaveLength(1);
  });

  it("stops when signed out and goes on when woken", async () => {
    const outbox = new Outbox(memory(), owner);
    outbox.put("s1", [answer("a")]);
    const write = vi
      .fn()
      .mockRejectedValueOnce(new Problem(401, "not-signed-in", "again"))
      .mockResolvedValue(written(1));
    const sender = new Sender(outbox, "device", write);
    sender.wake();
    await settle();
    expect(sender.state.getState()).toBe("signed-out");
    expect(outbox.list()).toHaveLength(1);
    sender.wake();
    await settle();
    expect(outbox.list()).toEqual([]);
  });

  it("hands back only what was refused, and sends the rest", async () => {
    const keep = memory();
    const outbox = new Outbox(keep, owner);
    outbox.put("s1", [answer("a"), answer("b", 999), answer("c")]);
    const write = vi.fn(async (_screen: string, answers: Answer[]) => {
      const bad = answers.findIndex((item) => item.value === 999);
      if (bad >= 0) {
        const fault = { path: `answers[${bad}].value`, problem: "999 is outside" };
        throw new Problem(422, "invalid", "no", [fault]);
      }
      return written(2);
    });
    const sender = new Sender(outbox, "device", write);
    sender.onRefused((what) => keepRefusal(keep, owner, what));
    sender.wake();
    await settle();
    expect(outbox.list()).toEqual([]);
    const [draft] = new Drafts(keep, owner, "s1").all().values();
    expect(draft).toEqual({ text: "999", dial: null, problem: "999 is outside" });
  });
});
