import { IDBFactory } from "fake-indexeddb";
import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it } from "vitest";
import { BrowserDisk, SmallDisk } from "./disk";
import { Journal, type Pages } from "./journal";

/** A browser's small store. */
function store(kept: Record<string, string> = {}): Storage {
  return Object.defineProperties(kept, {
    getItem: { value: (key: string) => kept[key] ?? null },
    setItem: {
      writable: true,
      value: (key: string, value: string) => {
        kept[key] = value;
      },
    },
    removeItem: {
      value: (key: string) => {
        delete kept[key];
      },
    },
  }) as unknown as Storage;
}

const pages = (own: string, ...open: string[]): Pages => ({
  own,
  open: async () => new Set(open),
  inTurn: (work) => work(),
});
const alone = pages("this page");
const KEY = "north-stride/draft/c/u/s/t|left||m";

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
});

describe("what is on its way", () => {
  it("is there after a reload that the database did not see", async () => {
    const small = store();
    new Journal(small, pages("before")).note(KEY, "84");
    expect(new Map(await new BrowserDisk(small, alone).load()).get(KEY)).toBe("84");
    expect(Object.keys(small)).toEqual([]);
    expect(new Map(await new BrowserDisk(store(), alone).load()).get(KEY)).toBe("84");
    new Journal(small, pages("before")).note(KEY, null);
    expect(new Map(await new BrowserDisk(small, alone).load()).has(KEY)).toBe(false);
  });

  it("stays with a page that is still open, and is shown here all the same", async () => {
    const small = store();
    const strike = new Journal(small, pages("beside")).note(KEY, "84");
    const disk = new BrowserDisk(small, pages("here", "beside"));
    expect(new Map(await disk.load()).get(KEY)).toBe("84");
    expect(new Map(await new BrowserDisk(store(), alone).load()).has(KEY)).toBe(false);
    strike();
    expect(Object.keys(small)).toEqual([]);
  });

  it("is noted before the hand is off the key, and struck out once it is kept", async () => {
    const small = store();
    const kept = new BrowserDisk(small, alone).put(KEY, "8");
    expect(Object.keys(small)).toHaveLength(1);
    await kept;
    expect(Object.keys(small)).toEqual([]);
  });

  it("never brings back an older value", async () => {
    const small = store();
    const journal = new Journal(small, pages("before"));
    const first = journal.note(KEY, "8");
    journal.note(KEY, "84");
    first();
    const found: unknown[] = [];
    const put = async (...line: unknown[]) => void found.push(line);
    await new Journal(small, alone).takeOver(put);
    expect(found).toEqual([[KEY, "84"]]);
    journal.note(KEY, "8");
    small.setItem = () => {
      throw new Error("full");
    };
    journal.note(KEY, "84");
    await new Journal(small, alone).takeOver(put);
    expect(found).toHaveLength(1);
  });

  it("is left where the database has no room, and what is no line is passed over", async () => {
    const small = store({ "north-stride-journal/x": "{", "north-stride-journal/y": "[1]" });
    new Journal(small, pages("before")).note(KEY, "84");
    const full = () => Promise.reject(new Error("full"));
    expect(await new Journal(small, alone).takeOver(full)).toEqual([[KEY, "84"]]);
    expect(Object.keys(small)).toContain(`north-stride-journal/${KEY}`);
  });
});

describe("the disk of a browser", () => {
  it("takes over what the small store held, once, and leaves what belongs there", async () => {
    const small = store({
      "north-stride/outbox/c/u/1": "waits",
      "north-stride/used": "123",
      "another app's": "own",
    });
    const disk = new BrowserDisk(small, alone);
    expect(await disk.load()).toEqual([["north-stride/outbox/c/u/1", "waits"]]);
    expect(Object.keys(small)).toEqual(["north-stride/used", "another app's"]);
    await disk.put("north-stride/draft/c/u/s/x", "8");
    await disk.put("north-stride/outbox/c/u/1", null);
    expect(await new BrowserDisk(store(), alone).load()).toEqual([
      ["north-stride/draft/c/u/s/x", "8"],
    ]);
  });

  it("is the small store where there is no database", async () => {
    const small = store({ "north-stride/outbox/c/u/1": "waits", other: "x" });
    const disk = new SmallDisk(small);
    expect(await disk.load()).toEqual([["north-stride/outbox/c/u/1", "waits"]]);
    await disk.put("north-stride/outbox/c/u/1", null);
    expect(Object.keys(small)).toEqual(["other"]);
  });
});
