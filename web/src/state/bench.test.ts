import { describe, expect, it, vi } from "vitest";
import { Problem } from "../api/problem";
import type { Answer, Preview, Screen } from "../api/screens";
import { Bench } from "./bench";
import { Drafts } from "./drafts";
import { memory } from "./memory";
import { Outbox } from "./outbox";
import { Sender } from "./sender";

const owner = { clinic: "c", user: "u" };
const left = { test: "made.up", side: "left", field: "values.reach" } as const;
const right = { ...left, side: "right" } as const;

const opened = {
  record: { entries: [{ test: "made.up", side: "left", values: { reach: 5 } }] },
  revision: 1,
  state: "open",
  late: [],
} as unknown as Screen;

const reading = { flags: [], differences: [] } as unknown as Preview["reading"];

type Alone = ConstructorParameters<typeof Sender>[3];

function setUp(keep = memory(), faults: Preview["faults"] = [], alone?: Alone) {
  const outbox = new Outbox(keep, owner);
  const write = vi.fn(async () => ({ revision: 2, late: [] }));
  const sender = new Sender(outbox, "device", write, alone);
  const ask = vi.fn(async (_answers: Answer[]) => ({ revision: 1, reading, faults }));
  const bench = new Bench("s", opened, new Drafts(keep, owner, "s"), outbox, sender, ask);
  return { keep, bench, write, ask, outbox };
}

const settle = () => new Promise((done) => setTimeout(done));

describe("the bench", () => {
  it("reads each key press and keeps it on the device", async () => {
    const { keep, bench, ask } = setUp();
    bench.type(left, "8", null);
    await settle();
    const [asked] = ask.mock.calls.at(-1) ?? [[]];
    expect(asked.map((answer) => answer.value)).toEqual([8]);
    expect(new Drafts(keep, owner, "s").all().size).toBe(1);
    expect(bench.value(left)).toBe(5);
  });

  it("writes once on accepting, and nothing for what has not changed", async () => {
    const { bench, write } = setUp();
    bench.type(left, "8", null);
    expect(bench.commit(left)).toBe(true);
    bench.type(left, "8", null);
    expect(bench.commit(left)).toBe(true);
    await settle();
    expect(write).toHaveBeenCalledOnce();
    expect(bench.value(left)).toBe(8);
    expect(bench.state.get().drafts.size).toBe(0);
  });

  it("does not take a fault and keeps what was typed", async () => {
    const { bench, write } = setUp();
    bench.type(left, "8 -", null);
    expect(bench.commit(left)).toBe(false);
    expect(bench.problem(left)).toContain("missing");
    expect(bench.draft(left).text).toBe("8 -");
    await settle();
    expect(write).not.toHaveBeenCalled();
  });

  it("shows the server's fault at the field", async () => {
    const fault = { path: "answers[0].value", problem: "-99 is outside -40 to 90" };
    const { bench } = setUp(memory(), [fault]);
    bench.type(left, "-99", null);
    await settle();
    expect(bench.problem(left)).toBe("−99 is outside −40 to 90");
    expect(bench.commit(left)).toBe(false);
  });

  it("after a rest sends the value and leaves the text under the hand", async () => {
    const { bench, write } = setUp();
    bench.type(left, "8 ", null);
    bench.rest(left);
    bench.rest(left);
    await settle();
    expect(write).toHaveBeenCalledOnce();
    expect(bench.draft(left).text).toBe("8 ");
    bench.type(left, "8 9", null);
    bench.commit(left);
    expect(bench.value(left)).toEqual([8, 9]);
  });

  it("takes up after a reload what was typed before it", async () => {
    const { keep, bench } = setUp();
    bench.type(left, "7", null);
    bench.close();
    const again = setUp(keep);
    await settle();
    await settle();
    expect(again.bench.value(left)).toBe(7);
    expect(again.write).toHaveBeenCalledOnce();
  });

  it("undoes the last action, whatever it was", async () => {
    const { bench } = setUp();
    bench.type(left, "8", null);
    bench.commit(left);
    bench.undo();
    expect(bench.value(left)).toBe(5);
    expect(bench.undo()).toBeNull();
  });

  it("moves a value to the other side in one action, and changes two over", async () => {
    const { bench } = setUp();
    bench.moveAcross("made.up", "values.reach", "left");
    expect([bench.value(left), bench.value(right)]).toEqual([null, 5]);
    bench.write([{ ...left, value: 9 }]);
    bench.moveAcross("made.up", "values.reach", "right");
    expect([bench.value(left), bench.value(right)]).toEqual([5, 9]);
    bench.undo();
    expect([bench.value(left), bench.value(right)]).toEqual([9, 5]);
  });

  it("follows what others write without touching what is being typed", async () => {
    const { bench } = setUp();
    bench.type(left, "8", null);
    const theirs = { ...right, id: "x", revision: 2, key: "", value: 3, by: "B.", at: null };
    bench.apply({ revision: 2, state: "open", answers: [theirs] });
    expect(bench.value(right)).toBe(3);
    expect(bench.draft(left).text).toBe("8");
    expect(bench.state.get().revision).toBe(2);
  });

  it("keeps the last reading, marked old, while the server is away", async () => {
    const { bench, ask } = setUp();
    await settle();
    expect(bench.state.get().readingCurrent).toBe(true);
    ask.mockRejectedValue(new Problem(0, "no-server", "away"));
    bench.type(left, "8", null);
    await settle();
    expect(bench.state.get().reading).toBe(reading);
    expect(bench.state.get().readingCurrent).toBe(false);
  });
});

describe("two tabs of one device", () => {
  it("do not wait for what the other one has sent", async () => {
    let myTurn = () => {};
    const turn = new Promise<void>((open) => {
      myTurn = open;
    });
    const { keep, bench, write, outbox } = setUp(memory(), [], async (work) => {
      await turn;
      return work();
    });
    bench.write([{ ...left, value: 8 }]);
    expect(bench.state.get().waiting.size).toBe(1);
    new Outbox(keep, owner).drop(outbox.list().map((waiting) => waiting.answer.id));
    myTurn();
    await settle();
    expect(write).not.toHaveBeenCalled();
    expect(bench.state.get().waiting.size).toBe(0);
    expect(bench.value(left)).toBe(8);
  });
});
