import { describe, expect, it } from "vitest";
import type { Disk } from "./disk";
import { DeviceKeep, type Keep, type Tabs } from "./keep";
import { memory } from "./memory";
import { Presence, type Shared } from "./presence";
import { allSaved, savingWords, type Unsaved } from "./saving";
import { seal, sealedHere, unseal } from "./sealing";

const owner = { clinic: "c", user: "u" };
const other = { clinic: "c", user: "v" };
const KEY = "0f".repeat(32);

/** A disk that takes so many entries and no more. */
function small(most: number) {
  const kept = new Map<string, string>();
  const disk: Disk = {
    load: async () => [...kept],
    put: async (key, value) => {
      if (value === null) kept.delete(key);
      else if (kept.has(key) || kept.size < most) kept.set(key, value);
      else throw new Error("full");
    },
  };
  return { kept, disk };
}

/** Tabs of one device, each hearing the others. */
function tabsOf() {
  const all: ((key: string, value: string | null) => void)[][] = [];
  return (): Tabs => {
    const own: (typeof all)[number] = [];
    all.push(own);
    return {
      tell: (key, value) => {
        for (const other of all) if (other !== own) for (const hear of other) hear(key, value);
      },
      hear: (listener) => void own.push(listener),
    };
  };
}

describe("a disk that is slow", () => {
  it("holds nobody up; what it brings late is told, unless it was changed meanwhile", async () => {
    let bring: (kept: [string, string][]) => void = () => {};
    const disk: Disk = {
      load: () => new Promise((done) => (bring = done)),
      put: async () => {},
    };
    const keep = new DeviceKeep(disk, tabsOf()());
    await keep.open(1);
    const told: string[] = [];
    keep.onForeign((key) => told.push(key));
    keep.setItem("a", "newer");
    keep.setItem("c", "gone");
    keep.removeItem("c");
    bring([
      ["a", "older"],
      ["b", "2"],
      ["c", "back"],
    ]);
    await new Promise((go) => setTimeout(go));
    expect([keep.getItem("a"), keep.getItem("b"), keep.getItem("c")]).toEqual(["newer", "2", null]);
    expect(told).toEqual(["b"]);
  });

  it("is asked at once, not after what it was asked before", async () => {
    const asked: string[] = [];
    const disk: Disk = {
      load: async () => [],
      put: (key) => {
        asked.push(key);
        return new Promise(() => {});
      },
    };
    const keep = new DeviceKeep(disk, tabsOf()());
    keep.setItem("a", "1");
    keep.setItem("b", "2");
    expect(asked).toEqual(["a", "b"]);
  });
});

describe("a full device", () => {
  it("keeps the rest in the page, says so, and moves it over when there is room", async () => {
    const { kept, disk } = small(1);
    const keep = new DeviceKeep(disk, tabsOf()());
    keep.setItem("a", "1");
    await keep.settled();
    expect(keep.full.getState()).toBe(false);
    keep.setItem("b", "2");
    await keep.settled();
    expect(keep.full.getState()).toBe(true);
    expect([keep.getItem("a"), keep.getItem("b")]).toEqual(["1", "2"]);
    expect(kept.has("b")).toBe(false);
    keep.removeItem("a");
    await keep.settled();
    expect(kept.get("b")).toBe("2");
    expect(keep.full.getState()).toBe(false);
  });

  it("is said before everything else", () => {
    expect(savingWords({ ...saved, full: true, waiting: 2 })).toContain("keep this page open, 2");
  });
});

const saved: Unsaved = {
  waiting: 0,
  drafts: new Map(),
  sending: "idle",
  full: false,
  faulty: null,
};
const draft = { text: "x", dial: null, problem: null };

describe("all saved", () => {
  it("counts answers on their way, notes, reasons and every draft", () => {
    expect([allSaved(saved), savingWords(saved)]).toEqual([true, "all saved"]);
    const note = { ...saved, drafts: new Map([["t|left||note", draft]]) };
    expect([allSaved(note), savingWords(note)]).toEqual([false, "typing: note, left"]);
    const waits = { ...saved, waiting: 1, sending: "waiting" as const };
    expect([allSaved(waits), savingWords(waits)]).toEqual([
      false,
      "1 kept here, waiting for the server",
    ]);
    const keyed = { ...saved, faulty: "t|right|fibula|values.result" };
    expect([allSaved(keyed), savingWords(keyed)]).toEqual([
      false,
      "not saved: result, fibula, right",
    ]);
  });

  it("does not count what was sent and only stays under the hand", () => {
    const held = { ...saved, drafts: new Map([["t|left||values.a", { ...draft, written: true }]]) };
    expect(allSaved(held)).toBe(true);
  });
});

describe("what somebody leaves unsent", () => {
  const full = () => {
    const keep = memory();
    keep.setItem("north-stride/outbox/c/u/1", '{"answer":"a telling note"}');
    keep.setItem("north-stride/draft/c/u/s/t|left||note", '{"text":"another telling note"}');
    keep.setItem("north-stride/outbox/c/v/2", "somebody else's");
    return keep;
  };
  const all = (keep: Keep) =>
    keep
      .under("north-stride/")
      .map((key) => keep.getItem(key))
      .join();

  it("is sealed, said by name and count, and opens for its owner alone", async () => {
    const keep = full();
    expect(await seal(keep, owner, "Jonas", KEY)).toBe(true);
    expect(all(keep)).not.toContain("telling");
    expect(sealedHere(keep)).toEqual([{ name: "Jonas", count: 2 }]);
    expect(await unseal(keep, other, KEY)).toBe(false);
    expect(await unseal(keep, owner, "1e".repeat(32))).toBe(false);
    expect(sealedHere(keep)).toHaveLength(1);
    expect(await unseal(keep, owner, KEY)).toBe(true);
    expect(keep.getItem("north-stride/outbox/c/u/1")).toContain("a telling note");
    expect(keep.getItem("north-stride/draft/c/u/s/t|left||note")).toContain("another");
    expect(sealedHere(keep)).toEqual([]);
  });

  it("is added to what was sealed before, and nothing is made of nothing", async () => {
    const keep = full();
    await seal(keep, owner, "Jonas", KEY);
    keep.setItem("north-stride/outbox/c/u/3", "later");
    await seal(keep, owner, "Jonas", KEY);
    expect(sealedHere(keep)).toEqual([{ name: "Jonas", count: 3 }]);
    await unseal(keep, owner, KEY);
    expect(keep.getItem("north-stride/outbox/c/u/1")).toContain("telling");
    expect(keep.getItem("north-stride/outbox/c/u/3")).toBe("later");
    expect(await seal(memory(), owner, "Jonas", KEY)).toBe(false);
  });
});

describe("what a device keeps", () => {
  it("is there again after a reload, and in the other tabs at once", async () => {
    const [{ disk }, tab] = [small(99), tabsOf()];
    const [one, two] = [new DeviceKeep(disk, tab()), new DeviceKeep(disk, tab())];
    await Promise.all([one.open(), two.open()]);
    const heard: string[] = [];
    two.onForeign((key) => heard.push(key));
    one.setItem("north-stride/draft/c/u/s/x", "8");
    expect(two.under("north-stride/draft/c/u/")).toEqual(["north-stride/draft/c/u/s/x"]);
    expect(heard).toEqual(["north-stride/draft/c/u/s/x"]);
    await one.settled();
    const later = new DeviceKeep(disk, tab());
    await later.open();
    expect(later.getItem("north-stride/draft/c/u/s/x")).toBe("8");
    two.removeItem("north-stride/draft/c/u/s/x");
    expect(one.getItem("north-stride/draft/c/u/s/x")).toBeNull();
  });

  it("takes what others change while it is being read for the newer", async () => {
    const { disk } = small(99);
    await disk.put("north-stride/a", "old");
    const tab = tabsOf();
    const [own, other] = [tab(), tab()];
    let read = (_: [string, string][]) => {};
    const slow: Disk = { ...disk, load: () => new Promise((done) => (read = done)) };
    const keep = new DeviceKeep(slow, own);
    const opening = keep.open();
    other.tell("north-stride/a", "new");
    read([["north-stride/a", "old"]]);
    await opening;
    expect(keep.getItem("north-stride/a")).toBe("new");
  });
});

describe("who is at this device", () => {
  function tabs() {
    const kept = memory();
    const listeners = new Set<(key: string | null) => void>();
    const clock = { wall: 1_000_000_000, going: 0 };
    const tab = () => {
      const own = new Set<(key: string | null) => void>();
      const shared: Shared = {
        getItem: kept.getItem,
        setItem: (key, value) => {
          kept.setItem(key, value);
          // As a browser does: every tab but the one that wrote.
          for (const tell of listeners) if (!own.has(tell)) tell(key);
        },
        onChange: (listener) => {
          own.add(listener);
          listeners.add(listener);
          return () => listeners.delete(listener);
        },
      };
      return new Presence(shared, { wall: () => clock.wall, going: () => clock.going });
    };
    const pass = (minutes: number) => {
      clock.wall += minutes * 60_000;
      clock.going += minutes * 60_000;
    };
    return { tab, pass, clock, kept };
  }

  it("locks every tab when no hand used any of them", () => {
    const { tab, pass } = tabs();
    const [one, two] = [tab(), tab()];
    one.entered("u");
    pass(10);
    one.used();
    pass(10);
    for (const each of [one, two]) each.look(15);
    expect([one.locked.getState(), two.locked.getState()]).toEqual([false, false]);
    pass(5);
    for (const each of [one, two]) each.look(15);
    expect([one.locked.getState(), two.locked.getState()]).toEqual([true, true]);
  });

  it("opens what was locked only where the server says that somebody is here", () => {
    const { tab, pass, kept } = tabs();
    const [one, two] = [tab(), tab()];
    const heard: string[] = [];
    two.onOther((who) => heard.push(who));
    one.entered("u");
    pass(20);
    two.look(15);
    one.entered("u");
    expect(heard).toEqual(["u", "u"]);
    expect(two.locked.getState()).toBe(true);
    kept.setItem("north-stride/used", "9999999999999");
    two.look(15);
    expect(two.locked.getState()).toBe(true);
    two.admitted();
    expect(two.locked.getState()).toBe(false);
  });

  it("locks by the clock that only goes on, whatever the other is set to", () => {
    const { tab, pass, clock } = tabs();
    const one = tab();
    one.entered("u");
    pass(20);
    clock.wall -= 30 * 60_000;
    one.look(15);
    expect(one.locked.getState()).toBe(true);
  });

  it("locks by the time of day where the device slept", () => {
    const { tab, clock } = tabs();
    const one = tab();
    one.entered("u");
    clock.wall += 20 * 60_000;
    one.look(15);
    expect(one.locked.getState()).toBe(true);
  });

  it("takes a moment that is still to come for no use", () => {
    const { tab, clock, kept } = tabs();
    kept.setItem("north-stride/used", String(clock.wall + 3_600_000));
    const one = tab();
    one.look(15);
    expect(one.locked.getState()).toBe(true);
  });

  it("says how long nobody was here", () => {
    const { tab, pass } = tabs();
    const one = tab();
    one.entered("u");
    pass(2);
    expect(one.idleMs()).toBe(120_000);
    one.used();
    expect(one.idleMs()).toBe(0);
  });

  it("owes the server a leaving where it was away at the lock", () => {
    const { tab } = tabs();
    const one = tab();
    one.entered("u");
    one.owesLeaving();
    expect(tab().leftUnknown).toBe(true);
    one.entered("u");
    expect(tab().leftUnknown).toBe(false);
  });

  it("tells the other tabs at once that somebody left or came", () => {
    const { tab } = tabs();
    const [one, two] = [tab(), tab()];
    const heard: string[] = [];
    two.onOther((who) => heard.push(who));
    one.entered("u");
    one.left(true);
    one.entered("v");
    expect(heard).toEqual(["u", "", "v"]);
  });

  it("remembers a leaving the server does not know of", () => {
    const { tab } = tabs();
    const one = tab();
    one.entered("u");
    one.left(false);
    expect(tab().leftUnknown).toBe(true);
    one.left(true);
    expect(tab().leftUnknown).toBe(false);
  });
});
