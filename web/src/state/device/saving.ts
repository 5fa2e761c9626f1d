// Whether everything this device holds of a screen is with the server: said in Bench and Reading alike.

import { placeOf } from "../domain/fields";
import { readable } from "../domain/wording";
import type { Draft } from "./drafts";
import type { SendState } from "./sender";

export interface Unsaved {
  /** Answers on their way. */
  waiting: number;
  /** What is typed and not yet an answer, notes and reasons among it. */
  drafts: ReadonlyMap<string, Draft>;
  sending: SendState;
  /** The device takes no more: what is typed lives in this page alone. */
  full: boolean;
  /** A place the server or the catalogue refuses. */
  faulty: string | null;
}

const open = (unsaved: Unsaved): string[] =>
  [...unsaved.drafts].filter(([, draft]) => !draft.written).map(([key]) => key);

export const allSaved = (unsaved: Unsaved): boolean =>
  unsaved.waiting === 0 && open(unsaved).length === 0 && unsaved.faulty === null;

/** In a few words; the worst first. */
export function savingWords(unsaved: Unsaved): string {
  const { waiting, sending, faulty, full } = unsaved;
  const typed = open(unsaved);
  const count = waiting + typed.length;
  if (full) return `device full: keep this page open, ${count} not saved`;
  if (waiting > 0 && sending === "signed-out") return `${waiting} kept here, sign in to send`;
  if (waiting > 0 && sending === "another-user") return `${waiting} kept here for you`;
  if (waiting > 0 && sending === "waiting") return `${waiting} kept here, waiting for the server`;
  if (waiting > 0) return "saving";
  if (faulty) return `not saved: ${placeWords(faulty)}`;
  const [first] = typed;
  if (!first) return "all saved";
  return typed.length === 1 ? `typing: ${placeWords(first)}` : `${typed.length} not finished`;
}

export function placeWords(key: string): string {
  const { field, side, key: own } = placeOf(key);
  const asked = readable(field.replace("values.", "")).replaceAll(".", " ");
  return [asked, readable(own), side].filter(Boolean).join(", ");
}

/** Which way a device's clock is off, and by how much: minutes, or hours where they say more. */
export function skewWords(seconds: number): string {
  const minutes = Math.round(Math.abs(seconds) / 60);
  const much = minutes < 120 ? `${minutes} min` : `${Math.round(minutes / 60)} h`;
  return `this device's clock is ${much} ${seconds > 0 ? "behind" : "ahead"}`;
}
