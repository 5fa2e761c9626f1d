// What is kept on this device belongs to one user of one clinic. It is read from memory and written behind
// the hand, one key after the other, so that two tabs never overwrite each other's.
import type { Disk } from "./disk";
import { KeyIndex } from "./key_index";
import { createStore } from "./store";

export interface Keep {
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
  removeItem(key: string): void;
  /** Keys that begin so, in their order. */
  under(prefix: string): string[];
  /** Told of each key that another tab of this device changed. */
  onForeign(listener: (key: string) => void): () => void;
}

/** How tabs of one device tell each other what they changed; null where it is gone. */
export interface Tabs {
  tell(key: string, value: string | null): void;
  hear(listener: (key: string, value: string | null) => void): void;
}

export interface Owner {
  clinic: string;
  user: string;
}

export const ownPrefix = (kind: string, owner: Owner) =>
  `north-stride/${kind}/${owner.clinic}/${owner.user}/`;

export function readJson<T>(keep: Pick<Keep, "getItem">, key: string): T | null {
  const text = keep.getItem(key);
  if (text === null) return null;
  try {
    return JSON.parse(text) as T;
  } catch {
    return null;
  }
}

// A disk that is slow holds nobody up.
const OPENS_WITHIN_MS = 3000;

/**
 * The device's store, and the page's own memory for what no longer fits. `full` is said: what only
 * the page holds is gone with it.
 */
export class DeviceKeep implements Keep {
  readonly full = createStore<boolean>(() => false);
  /** Goes up with each change this device makes. */
  readonly version = createStore<number>(() => 0);
  private readonly index = new KeyIndex();
  private readonly foreign = new Set<(key: string) => void>();
  /** What the disk did not take: tried again whenever it takes something. */
  private readonly refused = new Set<string>();
  private writing: Promise<void> = Promise.resolve();
  /** Keys that changed while the disk is still being read. */
  private newer: Set<string> | null = null;

  constructor(
    private readonly disk: Disk,
    private readonly tabs: Tabs,
  ) {}

  /** Reads what was kept. What comes only after `withinMs` is told as if another tab had changed it. */
  async open(withinMs = OPENS_WITHIN_MS): Promise<void> {
    // What is newer than the disk.
    const changed = new Set<string>();
    this.tabs.hear((key, value) => {
      this.newer?.add(key);
      this.changedElsewhere(key, value);
    });
    this.newer = changed;
    const loaded = this.disk.load().then((kept) => {
      this.newer = null;
      for (const [key, value] of kept) if (!changed.has(key)) this.changedElsewhere(key, value);
    });
    await Promise.race([loaded, new Promise((go) => setTimeout(go, withinMs))]);
  }

  getItem(key: string): string | null {
    return this.index.get(key);
  }

  setItem(key: string, value: string): void {
    this.index.set(key, value);
    this.changed(key);
  }

  removeItem(key: string): void {
    if (this.index.delete(key)) this.changed(key);
  }

  under(prefix: string): string[] {
    return this.index.under(prefix);
  }

  onForeign(listener: (key: string) => void): () => void {
    this.foreign.add(listener);
    return () => this.foreign.delete(listener);
  }

  /** Once all that was given so far is where it lasts, or was refused there. */
  settled(): Promise<void> {
    return this.writing;
  }

  private changed(key: string): void {
    this.newer?.add(key);
    this.tabs.tell(key, this.index.get(key));
    // At once: what waits for its turn a reload would take along.
    this.writing = Promise.all([this.writing, this.write(key)]).then(() => undefined);
    this.tellVersion();
  }

  private async write(key: string): Promise<void> {
    try {
      await this.disk.put(key, this.index.get(key));
      this.refused.delete(key);
    } catch {
      this.refused.add(key);
      this.full.setState(true);
      return;
    }
    for (const other of [...this.refused]) {
      try {
        await this.disk.put(other, this.index.get(other));
        this.refused.delete(other);
      } catch {
        break;
      }
    }
    this.full.setState(this.refused.size > 0);
  }

  private changedElsewhere(key: string, value: string | null): void {
    if (value === null) this.index.delete(key);
    else this.index.set(key, value);
    for (const tell of this.foreign) tell(key);
    this.tellVersion();
  }

  private tellVersion(): void {
    this.version.setState(this.version.getState() + 1);
  }
}

const DEVICE = "north-stride/device";

/** A random name for this device, so that the history can tell two tablets apart. */
export function deviceName(keep: Keep): string {
  const known = keep.getItem(DEVICE);
  if (known) return known;
  const made = crypto.randomUUID().slice(0, 8);
  keep.setItem(DEVICE, made);
  return made;
}
