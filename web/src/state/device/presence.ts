// Who is at this device: told from tab to tab, so that leaving, locking and changing over hold everywhere.
import { createStore, type Store } from "./store";

export interface Shared {
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
  onChange(listener: (key: string | null) => void): () => void;
}

/** The time of day, which somebody may set, and one that only goes on. */
export interface Clocks {
  wall(): number;
  going(): number;
}

const WHO = "north-stride/who";
const USED = "north-stride/used";
const LEFT = "north-stride/left";
// Often enough for a lock counted in minutes, seldom enough to write nothing while typing.
const TELL_USE_EVERY_MS = 5000;
// A stored moment that is still to come was written by another clock, or by hand: it proves no use.
const AHEAD_MS = 60_000;

const CLOCKS: Clocks = { wall: () => Date.now(), going: () => performance.now() };

export class Presence {
  readonly locked: Store<boolean> = createStore<boolean>(() => false);
  private lastTold = Number.NEGATIVE_INFINITY;
  /** By the clock that only goes on: when a hand was last at this device, as far as this tab knows. */
  private lastUse: number;

  constructor(
    private readonly shared: Shared,
    private readonly clocks: Clocks = CLOCKS,
  ) {
    this.lastUse = clocks.going();
    shared.onChange((key) => {
      if (key === USED) this.lastUse = clocks.going();
    });
  }

  entered(who: string): void {
    this.shared.setItem(LEFT, "");
    this.lastTold = Number.NEGATIVE_INFINITY;
    this.used();
    // Told anew each time, so that tabs that locked hear of it.
    this.shared.setItem(WHO, `${who} ${this.clocks.wall()}`);
    this.locked.setState(false);
  }

  /** The server says that somebody is here: the only thing that opens what was locked. */
  admitted(): void {
    this.locked.setState(false);
  }

  /** `known`: whether the server has ended the session. If not, that is done when it is back. */
  left(known: boolean): void {
    this.shared.setItem(LEFT, known ? "" : "yes");
    this.shared.setItem(WHO, "");
  }

  /** Locked while the server was away: the session there is ended as soon as it is back. */
  owesLeaving(): void {
    this.shared.setItem(LEFT, "yes");
  }

  /** Whether somebody left here while the server was away. */
  get leftUnknown(): boolean {
    return this.shared.getItem(LEFT) === "yes";
  }

  /** A hand is at the device. What a page does by itself is no use. */
  used(): void {
    const now = this.clocks.going();
    this.lastUse = now;
    if (now - this.lastTold < TELL_USE_EVERY_MS) return;
    this.lastTold = now;
    this.shared.setItem(USED, String(this.clocks.wall()));
  }

  /** For how long no hand was at the device, by whichever clock says longer. */
  idleMs(): number {
    const stored = Number(this.shared.getItem(USED) ?? 0);
    const byWall = this.clocks.wall() - stored;
    const going = this.clocks.going() - this.lastUse;
    return byWall < -AHEAD_MS ? Number.POSITIVE_INFINITY : Math.max(byWall, going);
  }

  /** Locks once nobody has used any tab for the clinic's limit. */
  look(idleMinutes: number): void {
    if (this.idleMs() >= idleMinutes * 60_000) this.locked.setState(true);
  }

  /** Told when somebody entered or left in another tab: their name, empty for nobody. */
  onOther(listener: (who: string) => void): () => void {
    return this.shared.onChange((key) => {
      if (key !== WHO) return;
      const [who = ""] = (this.shared.getItem(WHO) ?? "").split(" ");
      listener(who);
    });
  }
}

export const browserShared = (keep: Storage): Shared => ({
  getItem: (key) => keep.getItem(key),
  setItem: (key, value) => {
    try {
      keep.setItem(key, value);
    } catch {
      // A full device still works; the other tabs learn of it at their next call.
    }
  },
  onChange: (listener) => {
    const heard = (event: StorageEvent) => listener(event.key);
    window.addEventListener("storage", heard);
    return () => window.removeEventListener("storage", heard);
  },
});
