// A keep that lasts as long as the page: for tests, and for browsers that allow no other.
import type { Keep } from "./device";

export function memory(): Keep {
  const kept = new Map<string, string>();
  return {
    getItem: (key) => kept.get(key) ?? null,
    setItem: (key, value) => void kept.set(key, value),
    removeItem: (key) => void kept.delete(key),
    get length() {
      return kept.size;
    },
    key: (index) => [...kept.keys()][index] ?? null,
  };
}
