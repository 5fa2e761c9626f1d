// Where a device keeps what must outlive the page: the browser's database, or its small store where there
// is none.
import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { Journal, type Pages } from "./journal";
import type { Tabs } from "./keep";

export interface Disk {
  load(): Promise<[string, string][]>;
  /** Null takes the key away. Rejects where there is no room. */
  put(key: string, value: string | null): Promise<void>;
}

interface Kept extends DBSchema {
  kept: { key: string; value: string };
}

const NAME = "north-stride";
const PREFIX = "north-stride/";
// Of tab and device, read before anything else is: they stay in the small store.
const STAYS = /^north-stride\/(who|used|left|theme|length|lanes|aloud|paper)/;
// A database that does not answer must keep nobody from working.
const OPENS_WITHIN_MS = 10_000;

class DatabaseDisk implements Disk {
  constructor(
    private readonly database: IDBPDatabase<Kept>,
    private readonly small: Storage | null,
  ) {}

  async load(): Promise<[string, string][]> {
    await this.takeOver();
    const [keys, values] = await Promise.all([
      this.database.getAllKeys("kept"),
      this.database.getAll("kept"),
    ]);
    return keys.map((key, at) => [key, values[at] ?? ""]);
  }

  async put(key: string, value: string | null): Promise<void> {
    if (value === null) await this.database.delete("kept", key);
    else await this.database.put("kept", value, key);
  }

  /** What an earlier version of the app left in the small store. */
  private async takeOver(): Promise<void> {
    if (!this.small) return;
    for (const key of Object.keys(this.small)) {
      if (!key.startsWith(PREFIX) || STAYS.test(key)) continue;
      const value = this.small.getItem(key);
      if (value !== null) await this.database.put("kept", value, key);
      this.small.removeItem(key);
    }
  }
}

/** Written at once, and only a few megabytes. */
export class SmallDisk implements Disk {
  constructor(private readonly small: Storage) {}

  load(): Promise<[string, string][]> {
    const keys = Object.keys(this.small).filter((key) => key.startsWith(PREFIX));
    return Promise.resolve(keys.map((key) => [key, this.small.getItem(key) ?? ""]));
  }

  put(key: string, value: string | null): Promise<void> {
    try {
      if (value === null) this.small.removeItem(key);
      else this.small.setItem(key, value);
      return Promise.resolve();
    } catch (error) {
      return Promise.reject(error);
    }
  }
}

/** The disk there is: found once, and waited for by whoever asks first. What waits is noted meanwhile. */
export class BrowserDisk implements Disk {
  private found: Promise<Disk> | null = null;
  private readonly journal: Journal;

  constructor(
    private readonly small: Storage,
    pages: Pages,
  ) {
    this.journal = new Journal(small, pages);
  }

  async load(): Promise<[string, string][]> {
    const disk = await this.disk();
    const flying = await this.journal.takeOver((key, value) => disk.put(key, value));
    const kept = new Map(await disk.load());
    for (const [key, value] of flying) {
      if (value === null) kept.delete(key);
      else kept.set(key, value);
    }
    return [...kept];
  }

  async put(key: string, value: string | null): Promise<void> {
    const strike = this.journal.note(key, value);
    await (await this.disk()).put(key, value);
    strike();
  }

  private disk(): Promise<Disk> {
    this.found ??= open()
      .then((database): Disk => new DatabaseDisk(database, this.small))
      .catch(() => new SmallDisk(this.small));
    return this.found;
  }
}

function open(): Promise<IDBPDatabase<Kept>> {
  const opened = openDB<Kept>(NAME, 1, {
    upgrade: (database) => void database.createObjectStore("kept"),
  });
  const late = new Promise<never>((_, reject) =>
    setTimeout(() => reject(new Error("no database answers")), OPENS_WITHIN_MS),
  );
  return Promise.race([opened, late]);
}

/** Tabs that hear each other at once. */
export function browserTabs(): Tabs {
  if (typeof BroadcastChannel === "undefined") return { tell: () => {}, hear: () => {} };
  const channel = new BroadcastChannel(NAME);
  return {
    tell: (key, value) => channel.postMessage([key, value]),
    hear: (listener) => {
      channel.onmessage = ({ data }: MessageEvent<[string, string | null]>) => listener(...data);
    },
  };
}
