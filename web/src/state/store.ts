// A value that can be watched. React-free; `components/useStore` is the thin hook.
export interface Store<T> {
  get(): T;
  set(next: T): void;
  update(change: (now: T) => T): void;
  subscribe(listener: () => void): () => void;
}

export function createStore<T>(initial: T): Store<T> {
  let now = initial;
  const listeners = new Set<() => void>();
  const set = (next: T) => {
    if (Object.is(next, now)) return;
    now = next;
    for (const listener of [...listeners]) listener();
  };
  return {
    get: () => now,
    set,
    update: (change) => set(change(now)),
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
  };
}
