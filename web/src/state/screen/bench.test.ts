import { describe, expect, it, vi } from "vitest";
import { Problem } from "../../api/problem";
import type { Answer, Changes, Preview, Screen, Written } from "../../api/screens";
import { Drafts } from "../device/drafts";
import { memory, twoTabs } from "../device/memory";
import { Outbox } from "../device/outbox";
import { Sender } from "../device/sender";
import { Bench } from "./bench";

const owner = { clinic: "c", user: "u" };
const written = (revision: number, more: Partial<Written> = {}): Written => ({
  revision,
  late: [],
  beside: [],
  skew_seconds: null,
  ...more,
});
const left = { test: "made.up", side: "left", key: "", field: "values.reach" } as const;
const right = { ...left, side: "right" } as const;

const opened = {
  record: { entries: [{ test: "made.up", side: "left", values: { reach: 5 } }] },
  revision: 1,
  state: "open",
  late: [],
  clashes: [],
  facts: [],
} as unknown as Screen;

const reading = { flags: [], differences: [] } as unknown as Preview["reading"];

type Alone = ConstructorParameters<typeof Sender>[3];

function setUp(keep = memory(), faults: Preview["faults"] = [], alone?: Alone) {
  const outbox = new Outbox(keep, owner);
  const write = vi.fn(async (_screen: string, _answers: Answer[]) => written(2));
  const sender = new Sender(outbox, "device", write, alone);
  const ask = vi.fn(async (_answers: Answer[]) => ({ revision: 1, reading, faults }));
  const bench = new Bench("s", opened, new Drafts(keep, owner, "s"), outbox, sender, ask);
  return { keep, bench, write, ask, outbox };
}

/** What another device wrote. */
const changes = (places: object[], more: Partial<Changes> = {}): Changes =>
  ({
    revision: 2,
    state: "open",
    head: null,
    clashes: [],
    answers: places.map((place) => ({ id: "x", revision: 2, by: "B.", at: null, ...place })),
    ...more,
  }) as unknown as Changes;

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
    expect(bench.state.getState().drafts.size).toBe(0);
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
    bench.moveAcross(left);
    expect([bench.value(left), bench.value(right)]).toEqual([null, 5]);
    bench.write([{ ...left, value: 9 }]);
    bench.moveAcross(right);
    expect([bench.value(left), bench.value(right)]).toEqual([5, 9]);
    bench.undo();
    expect([bench.value(left), bench.value(right)]).toEqual([9, 5]);
  });

  it("takes what is being typed along when a value moves to the other side", async () => {
    const { bench } = setUp();
    bench.type(left, "8", null);
    bench.type(right, "3", null);
    bench.moveAcross(left);
    expect([bench.value(left), bench.value(right)]).toEqual([3, 8]);
    expect(bench.state.getState().drafts.size).toBe(0);
  });

  it("learns that the screen was signed elsewhere, though nothing else has changed", async () => {
    const { bench } = setUp();
    bench.apply(changes([], { revision: 1, state: "signed" }));
    expect(bench.state.getState().signed).toBe(true);
    bench.apply(changes([], { revision: 1 }));
    expect(bench.state.getState().revision).toBe(1);
  });

  it("keeps values of two keys apart", async () => {
    const { bench } = setUp();
    const first = { ...left, key: "fibula" };
    bench.write([{ ...first, value: 1 }]);
    bench.write([{ ...left, key: "tibia", value: 2 }]);
    expect([bench.value(first), bench.value({ ...left, key: "tibia" })]).toEqual([1, 2]);
    expect(bench.value(left)).toBe(5);
  });

  it("follows what others write without touching what is being typed", async () => {
    const { bench } = setUp();
    bench.type(left, "8", null);
    bench.apply(changes([{ ...right, value: 3 }]));
    expect(bench.value(right)).toBe(3);
    expect(bench.draft(left).text).toBe("8");
    expect(bench.state.getState().revision).toBe(2);
  });

  it("keeps the last reading, marked old, while the server is away", async () => {
    const { bench, ask } = setUp();
    await settle();
    expect(bench.state.getState().readingCurrent).toBe(true);
    ask.mockRejectedValue(new Problem(0, "no-server", "away"));
    bench.type(left, "8", null);
    await settle();
    expect(bench.state.getState().reading).toBe(reading);
    expect(bench.state.getState().readingCurrent).toBe(false);
  });
});

describe("following others", () => {
  it("leaves what was asked before an answer of its own arrived, and asks again", async () => {
    const { bench } = setUp();
    const ask = vi.fn(async (_revision: number) => changes([{ ...left, value: 8 }]));
    ask.mockImplementationOnce(async () => {
      bench.write([{ ...left, value: 8 }]);
      await settle();
      return changes([{ ...left, value: 5 }], { revision: 2 });
    });
    await bench.follow(ask);
    expect(ask).toHaveBeenCalledTimes(2);
    expect(bench.value(left)).toBe(8);
  });

  it("gives its turn up where answers keep arriving", async () => {
    const { bench } = setUp();
    let value = 10;
    const ask = vi.fn(async () => {
      bench.write([{ ...left, value: ++value }]);
      await settle();
      return changes([{ ...left, value: 5 }]);
    });
    expect(await bench.follow(ask)).toBeNull();
    expect(bench.value(left)).toBe(value);
    expect(bench.state.getState().revision).toBe(1);
  });
});

describe("what arrives and does not stand", () => {
  it("is counted where the screen was signed meanwhile, and what was signed stays", async () => {
    const { bench, write } = setUp();
    write.mockImplementationOnce(async (_screen: string, [answer]: Answer[]) =>
      written(2, { late: [answer?.id ?? ""] }),
    );
    bench.write([{ ...left, value: 8 }]);
    await settle();
    const { late, signed, waiting } = bench.state.getState();
    expect([late, signed, waiting.size]).toEqual([1, true, 0]);
    expect(bench.value(left)).toBe(5);
  });

  it("lies beside what somebody saw later", async () => {
    const { bench, write } = setUp();
    write.mockImplementationOnce(async (_screen: string, [answer]: Answer[]) =>
      written(2, { beside: [answer?.id ?? ""] }),
    );
    bench.write([{ ...left, value: 8 }]);
    await settle();
    expect(bench.value(left)).toBe(5);
    expect(bench.state.getState().signed).toBe(false);
  });
});

describe("two tabs of one device", () => {
  it("do not wait for what the other one has sent", async () => {
    let myTurn = () => {};
    const turn = new Promise<void>((open) => {
      myTurn = open;
    });
    const [here, there] = twoTabs();
    const { bench, write, outbox } = setUp(here, [], async (work) => {
      await turn;
      return work();
    });
    bench.write([{ ...left, value: 8 }]);
    expect(bench.state.getState().waiting.size).toBe(1);
    new Outbox(there, owner).drop(outbox.list().map((waiting) => waiting.answer.id));
    myTurn();
    await settle();
    expect(write).not.toHaveBeenCalled();
    expect(bench.state.getState().waiting.size).toBe(0);
    expect(bench.value(left)).toBe(8);
  });

  it("leave what is under the hand as it is when the other one has sent", async () => {
    const [here, there] = twoTabs();
    const { bench, outbox } = setUp(here, [], () => new Promise(() => {}));
    bench.write([{ ...left, value: 8 }]);
    bench.type(left, "12", null);
    new Outbox(there, owner).drop(outbox.list().map((waiting) => waiting.answer.id));
    (bench as unknown as { settleElsewhere(): void }).settleElsewhere();
    expect(bench.draft(left).text).toBe("12");
    expect(bench.state.getState().fields.get("made.up|left||values.reach")?.value).toBe(5);
  });
});

describe("what another tab was refused", () => {
  it("stands here with what it was refused for", () => {
    const [here, there] = twoTabs();
    const { bench, outbox } = setUp(here, [], () => new Promise(() => {}));
    bench.write([{ ...left, value: 8 }]);
    new Outbox(there, owner).drop(outbox.list().map((waiting) => waiting.answer.id));
    const refused = { text: "8", dial: null, problem: "not today" };
    new Drafts(there, owner, "s").put("made.up|left||values.reach", refused);
    (bench as unknown as { settleElsewhere(): void }).settleElsewhere();
    expect(bench.problem(left)).toBe("not today");
    expect(bench.state.getState().fields.get("made.up|left||values.reach")?.value).toBe(5);
  });
});

describe("what a device kept before places had a key", () => {
  it("is taken up at its place", async () => {
    const keep = memory();
    const old = "north-stride/draft/c/u/s/made.up|left|values.reach";
    keep.setItem(old, JSON.stringify({ text: "7", dial: null, problem: null }));
    const { bench, write } = setUp(keep);
    await settle();
    await settle();
    expect(bench.value(left)).toBe(7);
    expect(write).toHaveBeenCalledOnce();
    expect(keep.getItem(old)).toBeNull();
  });
});
