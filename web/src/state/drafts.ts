// What is being typed and not yet written. Kept on the device at every key press.
import { type Keep, keysUnder, type Owner, ownPrefix, readJson } from "./device";
import { isValueField, placeKey } from "./fields";
import { type DialSetting, dialOf, textOf } from "./parse";
import type { Refusal } from "./sender";

export interface Draft {
  text: string;
  dial: DialSetting | null;
  /** Why it was not taken, in the server's words. */
  problem: string | null;
  /** Already sent after a rest, and kept only because the hand is still in the field. */
  written?: boolean;
}

export class Drafts {
  private readonly prefix: string;

  constructor(
    private readonly keep: Keep,
    owner: Owner,
    screen: string,
  ) {
    this.prefix = `${ownPrefix("draft", owner)}${screen}/`;
  }

  all(): Map<string, Draft> {
    const found = new Map<string, Draft>();
    for (const key of keysUnder(this.keep, this.prefix)) {
      const draft = readJson<Draft>(this.keep, key);
      if (draft) found.set(key.slice(this.prefix.length), draft);
    }
    return found;
  }

  put(place: string, draft: Draft): void {
    this.keep.setItem(this.prefix + place, JSON.stringify(draft));
  }

  drop(place: string): void {
    this.keep.removeItem(this.prefix + place);
  }
}

/** What the server handed back, kept as it was typed with the reason beside it. */
export function keepRefusal(keep: Keep, owner: Owner, what: Refusal): void {
  const { test, field } = what.answer;
  const value = what.answer.value ?? null;
  const text = isValueField(field) ? textOf(value) : JSON.stringify(value);
  const place = placeKey({ test, side: what.answer.side ?? null, field });
  const draft = { text, dial: dialOf(value), problem: what.problem };
  new Drafts(keep, owner, what.screen).put(place, draft);
}
