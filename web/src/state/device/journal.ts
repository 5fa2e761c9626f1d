// What is on its way to the device's database: noted at once in the browser's small store, which no reload
// overtakes, and struck out once the database has it.

/** Which pages of this app are open on this device. */
export interface Pages {
  own: string;
  open(): Promise<ReadonlySet<string>>;
  /** One page after the other. */
  inTurn<T>(work: () => Promise<T>): Promise<T>;
}

/** Null takes the key away. */
type Line = [page: string, count: number, value: string | null];

const PREFIX = "north-stride-journal/";

export class Journal {
  private count = 0;

  constructor(
    private readonly small: Storage,
    private readonly pages: Pages,
  ) {}

  /** Returns how to strike it out; a later line of the same key stays. */
  note(key: string, value: string | null): () => void {
    this.count += 1;
    const line = JSON.stringify([this.pages.own, this.count, value] satisfies Line);
    try {
      this.small.setItem(PREFIX + key, line);
    } catch {
      // No room: an older line must not come back in its place.
      this.small.removeItem(PREFIX + key);
    }
    return () => this.strike(key, line);
  }

  /**
   * Gives `put` what pages that are gone left here, and returns all that the database may not have yet:
   * what open pages are still writing is theirs to put.
   */
  takeOver(put: Put): Promise<[string, string | null][]> {
    return this.pages.inTurn(async () => {
      const open = await this.pages.open();
      const found: [string, string | null][] = [];
      for (const [key, line] of this.lines()) {
        const read = lineOf(line);
        if (!read) continue;
        const [page, , value] = read;
        if (open.has(page) || !(await this.put(put, key, value, line))) found.push([key, value]);
      }
      return found;
    });
  }

  private async put(put: Put, key: string, value: string | null, line: string): Promise<boolean> {
    try {
      await put(key, value);
    } catch {
      return false;
    }
    this.strike(key, line);
    return true;
  }

  private lines(): [string, string][] {
    const keys = Object.keys(this.small).filter((key) => key.startsWith(PREFIX));
    return keys.map((key) => [key.slice(PREFIX.length), this.small.getItem(key) ?? "null"]);
  }

  private strike(key: string, line: string): void {
    if (this.small.getItem(PREFIX + key) === line) this.small.removeItem(PREFIX + key);
  }
}

/** Null where it is none. */
function lineOf(text: string): Line | null {
  try {
    const line: unknown = JSON.parse(text);
    return Array.isArray(line) && line.length === 3 ? (line as unknown as Line) : null;
  } catch {
    return null;
  }
}

type Put = (key: string, value: string | null) => Promise<void>;

const PAGE = "north-stride-page/";

/** A page is open as long as it holds the lock of its name; without locks each stands alone. */
export function browserPages(): Pages {
  const own = crypto.randomUUID();
  const locks = navigator.locks as LockManager | undefined;
  if (!locks) return { own, open: async () => new Set(), inTurn: (work) => work() };
  void locks.request(PAGE + own, () => new Promise(() => {}));
  return {
    own,
    open: async () => {
      const names = ((await locks.query()).held ?? []).map(({ name }) => name ?? "");
      const pages = names.filter((name) => name.startsWith(PAGE));
      return new Set(pages.map((name) => name.slice(PAGE.length)));
    },
    inTurn: (work) =>
      locks.request("north-stride-journal", work) as Promise<Awaited<ReturnType<typeof work>>>,
  };
}
