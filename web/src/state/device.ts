// What is kept on this device belongs to one user of one clinic. Keys are written one by one, so
// that two tabs never overwrite each other's.
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

const DEVICE = "north-stride/device";

/** A random name for this device, so that the history can tell two tablets apart. */
export function deviceName(keep: Keep): string {
  const known = keep.getItem(DEVICE);
  if (known) return known;
  const made = crypto.randomUUID().slice(0, 8);
  keep.setItem(DEVICE, made);
  return made;
}
