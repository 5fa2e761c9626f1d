// Answers on their way. Each is kept on the device until the server has it; sending twice is harmless.
import type { Answer } from "../../api/screens";
import { type Keep, type Owner, ownPrefix, readJson } from "./keep";

export interface Waiting {
  screen: string;
  answer: Answer;
}

interface Kept extends Waiting {
  order: number;
}

/** Read once, and followed: what a key press costs does not grow with what waits. */
export class Outbox {
  private readonly prefix: string;
  private last = 0;
  /** In the order they were given, by screen. */
  private readonly waiting = new Map<string, Kept[]>();
  private readonly screens = new Map<string, string>();
  private readonly stops: () => void;

  constructor(
    private readonly keep: Keep,
    owner: Owner,
  ) {
    this.prefix = ownPrefix("outbox", owner);
    for (const key of keep.under(this.prefix)) this.take(key);
    this.stops = keep.onForeign((key) => {
      if (!key.startsWith(this.prefix)) return;
      this.forget(key);
      this.take(key);
    });
  }

  /** Follows the other tabs no longer. */
  close(): void {
    this.stops();
  }

  /** In the order they were given, whatever the clock is set to meanwhile. */
  put(screen: string, answers: Answer[]): void {
    for (const answer of answers) {
      const kept: Kept = { screen, answer, order: Math.max(this.last + 1, Date.now() * 1000) };
      const key = this.prefix + answer.id;
      this.forget(key);
      this.add(key, kept);
      this.keep.setItem(key, JSON.stringify(kept));
    }
  }

  drop(ids: Iterable<string>): void {
    for (const id of ids) {
      this.forget(this.prefix + id);
      this.keep.removeItem(this.prefix + id);
    }
  }

  /** All that waits, oldest first; of one screen, if named. */
  list(screen?: string): readonly Waiting[] {
    if (screen !== undefined) return this.waiting.get(screen) ?? [];
    return [...this.waiting.values()].flat().sort((a, b) => a.order - b.order);
  }

  count(screen: string): number {
    return this.waiting.get(screen)?.length ?? 0;
  }

  /** What can go in one call: the oldest answer and those of its screen, none out of order. */
  batch(most: number): { screen: string; answers: Answer[] } | null {
    const oldest = [...this.waiting.values()].flatMap(([first]) => (first ? [first] : []));
    if (oldest.length === 0) return null;
    const { screen } = oldest.reduce((one, other) => (one.order <= other.order ? one : other));
    const answers = this.list(screen).slice(0, most);
    return { screen, answers: answers.map(({ answer }) => answer) };
  }

  private take(key: string): void {
    const kept = readJson<Kept>(this.keep, key);
    if (kept) this.add(key, kept);
  }

  private add(key: string, kept: Kept): void {
    const own = this.waiting.get(kept.screen) ?? [];
    let at = own.length;
    while (at > 0 && (own[at - 1]?.order ?? 0) > kept.order) at -= 1;
    own.splice(at, 0, kept);
    this.waiting.set(kept.screen, own);
    this.screens.set(key, kept.screen);
    this.last = Math.max(this.last, kept.order);
  }

  private forget(key: string): void {
    const screen = this.screens.get(key);
    if (screen === undefined) return;
    this.screens.delete(key);
    const id = key.slice(this.prefix.length);
    const left = (this.waiting.get(screen) ?? []).filter(({ answer }) => answer.id !== id);
    if (left.length > 0) this.waiting.set(screen, left);
    else this.waiting.delete(screen);
  }
}
