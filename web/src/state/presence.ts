// Who is at this device: told from tab to tab, so that leaving, locking and changing over hold everywhere.
import { createStore, type Store } from "./store";

export interface Shared {
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
  onChange(listener: (key: string | null) => void): () => void;
}

const WHO = "north-stride/who";
const USED = "north-stride/used";
const LEFT = "north-stride/left";
// Often enough for a lock counted in minutes, seldom enough to write nothing while typing.
const TELL_USE_EVERY_MS = 5000;

export class Presence {
  readonly locked: Store<boolean> = createStore<boolean>(() => false);
  private lastTold = 0;

  constructor(
    private readonly shared: Shared,
    private readonly now: () => number = Date.now,
  ) {}

  entered(who: string): void {
    this.shared.setItem(LEFT, "");
    // Told anew each time, so that tabs that locked hear of it.
    this.shared.setItem(WHO, `${who} ${this.now()}`);
    this.lastTold = 0;
    this.used();
    this.locked.setState(false);
  }

  /** `known`: whether the server has ended the session. If not, that is done when it is back. */
  left(known: boolean): void {
    this.shared.setItem(LEFT, known ? "" : "yes");
    this.shared.setItem(WHO, "");
  }

  /** Whether somebody left here while the server was away. */
  get leftUnknown(): boolean {
    return this.shared.getItem(LEFT) === "yes";
  }

  /** A hand is at the device. What a page does by itself is no use. */
  used(): void {
    const now = this.now();
    if (now - this.lastTold < TELL_USE_EVERY_MS) return;
    this.lastTold = now;
    this.shared.setItem(USED, String(now));
  }

  /** Locks once nobody has used any tab for the clinic's limit. */
  look(idleMinutes: number): void {
    const used = Number(this.shared.getItem(USED) ?? 0);
    if (this.now() - used >= idleMinutes * 60_000) this.locked.setState(true);
  }

  /** Told when somebody entered or left in another tab: their name, empty for nobody. */
  onOther(listener: (who: string) => void): () => void {
    return this.shared.onChange((key) => {
      if (key !== WHO) return;
      const [who = ""] = (this.shared.getItem(WHO) ?? "").split(" ");
      if (who) this.locked.setState(false);
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
