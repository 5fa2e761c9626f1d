// Answers on their way. Each is kept on the device until the server has it; sending twice is harmless.
import type { Answer } from "../api/screens";
import { type Keep, keysUnder, type Owner, ownPrefix, readJson } from "./device";

export interface Waiting {
  screen: string;
  answer: Answer;
}

interface Kept extends Waiting {
  order: number;
}

export class Outbox {
  private readonly prefix: string;
  private last = 0;

  constructor(
    private readonly keep: Keep,
    owner: Owner,
  ) {
    this.prefix = ownPrefix("outbox", owner);
  }

  /** In the order they were given. */
  put(screen: string, answers: Answer[]): void {
    for (const answer of answers) {
      this.last = Math.max(this.last + 1, Date.now() * 1000);
      const kept: Kept = { screen, answer, order: this.last };
      this.keep.setItem(this.prefix + answer.id, JSON.stringify(kept));
    }
  }

  drop(ids: Iterable<string>): void {
    for (const id of ids) this.keep.removeItem(this.prefix + id);
  }

  /** All that waits, oldest first; of one screen, if named. */
  list(screen?: string): Waiting[] {
    return keysUnder(this.keep, this.prefix)
      .map((key) => readJson<Kept>(this.keep, key))
      .filter((kept): kept is Kept => kept !== null)
      .filter((kept) => screen === undefined || kept.screen === screen)
      .sort((a, b) => a.order - b.order);
  }

  /** What can go in one call: the oldest answer and those of its screen, none out of order. */
  batch(most: number): { screen: string; answers: Answer[] } | null {
    const [first] = this.list();
    if (!first) return null;
    const answers = this.list(first.screen).slice(0, most);
    return { screen: first.screen, answers: answers.map((waiting) => waiting.answer) };
  }
}
