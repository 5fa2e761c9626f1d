// Where others are at the open screen, as the server last told; and where this device says it is.
import type { Catalogue } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Changes } from "../../api/screens";
import { createStore } from "../device/store";
import { SIDE_LETTER } from "../domain/wording";

export type Other = Changes["others"][number];

interface Known {
  screen: string;
  list: readonly Other[];
}

const NOBODY: Known = { screen: "", list: [] };

export const others = createStore<Known>(() => NOBODY);

/** Told anew with every look; the same people at the same places change nothing that is drawn. */
export function heardOf(screen: string, list: readonly Other[]): void {
  const now = others.getState();
  if (now.screen === screen && JSON.stringify(now.list) === JSON.stringify(list)) return;
  others.setState({ screen, list });
}

export const othersAt = (known: Known, screen: string): readonly Other[] =>
  known.screen === screen ? known.list : [];

interface Asked {
  test: string | null;
  side: Side | null;
}

/** What the bench asks here just now. */
export const askedHere = createStore<Asked>(() => ({ test: null, side: null }));

/** "Maren: Knee to wall, R", or which step they are at. */
export function whereWords(other: Other, catalogue: Catalogue): string {
  const test = catalogue.tests.find((each) => each.code === other.test)?.name;
  const side = other.side ? `, ${SIDE_LETTER[other.side]}` : "";
  return `${other.name}: ${test ? `${test}${side}` : other.step}`;
}

/** "MS" of Maren Solli. */
export const initials = (name: string): string =>
  name
    .split(/\s+/)
    .filter(Boolean)
    .map((word) => word.charAt(0).toUpperCase())
    .slice(0, 2)
    .join("");

const STEPS: readonly Other["step"][] = ["story", "route", "bench", "reading", "sheet"];

/** Where this device is: the step its address is at, and at the bench what is asked there. */
export function hereAt(
  address: string,
  asked: Asked,
): Pick<Other, "step" | "test" | "side"> | null {
  const step = STEPS.find((each) => each === address.split("/")[3]);
  if (!step) return null;
  return step === "bench" ? { step, ...asked } : { step, test: null, side: null };
}
