// What is kept on this device belongs to one user of one clinic. Keys are written one by one, so
// that two tabs never overwrite each other's.
import { createStore } from "./store";

export interface Keep {
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
  removeItem(key: string): void;
  readonly length: number;
  key(index: number): string | null;
}

export interface Owner {
  clinic: string;
  user: string;
}

export const ownPrefix = (kind: string, owner: Owner) =>
  `north-stride/${kind}/${owner.clinic}/${owner.user}/`;

export function keysUnder(keep: Keep, prefix: string): string[] {
  const found: string[] = [];
  for (let index = 0; index < keep.length; index += 1) {
    const key = keep.key(index);
    if (key?.startsWith(prefix)) found.push(key);
  }
  return found.sort();
}

export function readJson<T>(keep: Keep, key: string): T | null {
  const text = keep.getItem(key);
  if (text === null) return null;
  try {
    return JSON.parse(text) as T;
  } catch {
    return null;
  }
}

/**
 * The browser's store, and the page's own memory for what no longer fits. `full` is said: what only
 * the page holds is gone with it.
 */
export class DeviceKeep implements Keep {
  readonly full = createStore<boolean>(() => false);
  /** Goes up with each change this page makes. */
  readonly version = createStore<number>(() => 0);
  private readonly overflow = new Map<string, string>();

  constructor(private readonly under: Keep) {}

  getItem(key: string): string | null {
    return this.overflow.get(key) ?? this.under.getItem(key);
  }

  setItem(key: string, value: string): void {
    try {
      this.under.setItem(key, value);
      this.overflow.delete(key);
    } catch {
      this.overflow.set(key, value);
    }
    this.tell();
  }

  removeItem(key: string): void {
    this.overflow.delete(key);
    this.under.removeItem(key);
    this.settle();
  }

  get length(): number {
    return this.keys().length;
  }

  key(index: number): string | null {
    return this.keys()[index] ?? null;
  }

  private keys(): string[] {
    const found = new Set<string>(this.overflow.keys());
    for (let index = 0; index < this.under.length; index += 1) {
      const key = this.under.key(index);
      if (key !== null) found.add(key);
    }
    return [...found];
  }

  /** Room was made: what waits in memory goes where it lasts. */
  private settle(): void {
    for (const [key, value] of [...this.overflow]) {
      try {
        this.under.setItem(key, value);
        this.overflow.delete(key);
      } catch {
        break;
      }
    }
    this.tell();
  }

  private tell(): void {
    this.full.setState(this.overflow.size > 0);
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
