import "fake-indexeddb/auto";
import { describe, expect, it } from "vitest";
import { BrowserDisk, SmallDisk } from "./disk";

/** A browser's small store. */
function store(kept: Record<string, string> = {}): Storage {
  return Object.defineProperties(kept, {
    getItem: { value: (key: string) => kept[key] ?? null },
    setItem: {
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

describe("the disk of a browser", () => {
  it("takes over what the small store held, once, and leaves what belongs there", async () => {
    const small = store({
      "north-stride/outbox/c/u/1": "waits",
      "north-stride/used": "123",
      "another app's": "own",
    });
    const disk = new BrowserDisk(small);
    expect(await disk.load()).toEqual([["north-stride/outbox/c/u/1", "waits"]]);
    expect(Object.keys(small)).toEqual(["north-stride/used", "another app's"]);
    await disk.put("north-stride/draft/c/u/s/x", "8");
    await disk.put("north-stride/outbox/c/u/1", null);
    expect(await new BrowserDisk(store()).load()).toEqual([["north-stride/draft/c/u/s/x", "8"]]);
  });

  it("is the small store where there is no database", async () => {
    const small = store({ "north-stride/outbox/c/u/1": "waits", other: "x" });
    const disk = new SmallDisk(small);
    expect(await disk.load()).toEqual([["north-stride/outbox/c/u/1", "waits"]]);
    await disk.put("north-stride/outbox/c/u/1", null);
    expect(Object.keys(small)).toEqual(["other"]);
  });
});
