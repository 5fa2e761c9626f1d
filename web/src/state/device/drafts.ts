// What is being typed and not yet written. Kept on the device at every key press.

import { isValueField, placeKey, placeOf, placeOfAnswer } from "../domain/fields";
import type { LengthUnit } from "../domain/length";
import { type DialSetting, dialOf, textOf } from "../domain/parse";
import { type Keep, type Owner, ownPrefix, readJson } from "./keep";
import type { Refusal } from "./sender";

export interface Draft {
  text: string;
  dial: DialSetting | null;
  /** What a length was typed in, where it was not millimetres. */
  unit?: LengthUnit;
  /** Why it was not taken, in the server's words. */
  problem: string | null;
  /** Sent after a rest, and kept only because the hand is still in the field. */
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
    for (const key of this.keep.under(this.prefix)) {
      const draft = readJson<Draft>(this.keep, key);
      const own = key.slice(this.prefix.length);
      if (draft) found.set(placeKey(placeOf(own)), draft);
    }
    return found;
  }

  put(place: string, draft: Draft): void {
    this.keep.setItem(this.prefix + place, JSON.stringify(draft));
  }

  drop(place: string): void {
    for (const key of this.keep.under(this.prefix)) {
      const own = key.slice(this.prefix.length);
      // Also what was kept before places had a key.
      if (placeKey(placeOf(own)) === place) this.keep.removeItem(key);
    }
  }
}

/** What the server handed back, kept as it was typed with the reason beside it. */
export function keepRefusal(keep: Keep, owner: Owner, what: Refusal): void {
  const { field } = what.answer;
  const value = what.answer.value ?? null;
  const words = typeof value === "string" ? value : JSON.stringify(value);
  const text = isValueField(field) ? textOf(value) : words;
  const place = placeKey(placeOfAnswer(what.answer));
  const draft = { text, dial: dialOf(value), problem: what.problem };
  new Drafts(keep, owner, what.screen).put(place, draft);
}
