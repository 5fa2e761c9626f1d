// What a user chose for this device: theme, unit of lengths and number pad. No health data.
import { LENGTH_UNITS, type LengthUnit } from "../domain/length";
import { createStore } from "./store";

export type Theme = "light" | "dim";

const THEME = "north-stride/theme";

const DARK = "(prefers-color-scheme: dark)";

const chosen = (): Theme | null => {
  const kept = window.localStorage.getItem(THEME);
  return kept === "dim" || kept === "light" ? kept : null;
};

const ofDevice = (): Theme => (window.matchMedia(DARK).matches ? "dim" : "light");

/** As chosen; until then as the device has it. */
export const theme = createStore<Theme>(() => chosen() ?? ofDevice());

export function chooseTheme(next: Theme): void {
  window.localStorage.setItem(THEME, next);
  theme.setState(next);
}

export function showTheme(next: Theme): void {
  document.documentElement.dataset.bsTheme = next === "dim" ? "dark" : "light";
}

theme.subscribe(() => showTheme(theme.getState()));
window.matchMedia(DARK).addEventListener("change", () => {
  if (chosen() === null) theme.setState(ofDevice());
});
showTheme(theme.getState());

const LENGTH = "north-stride/length";

const keptUnit = (): LengthUnit => {
  const kept = window.localStorage.getItem(LENGTH);
  return LENGTH_UNITS.find((unit) => unit === kept) ?? "mm";
};

/** What lengths are typed and shown in at the bench. They are kept in millimetres. */
export const lengthUnit = createStore<LengthUnit>(keptUnit);

export function chooseLengthUnit(next: LengthUnit): void {
  window.localStorage.setItem(LENGTH, next);
  lengthUnit.setState(next);
}

/** True once a finger was used: then our own pad opens and the system's keyboard stays away. */
export const touching = createStore<boolean>(() => false);
