// What a user chose for this device: theme and number pad. No health data.
import { createStore } from "./store";

export type Theme = "light" | "dim";

const THEME = "north-stride/theme";

const known = (): Theme => (window.localStorage.getItem(THEME) === "dim" ? "dim" : "light");

export const theme = createStore<Theme>(known);

export function showTheme(next: Theme): void {
  document.documentElement.dataset.bsTheme = next === "dim" ? "dark" : "light";
}

theme.subscribe(() => {
  window.localStorage.setItem(THEME, theme.getState());
  showTheme(theme.getState());
});
showTheme(theme.getState());

/** True once a finger was used: then our own pad opens and the system's keyboard stays away. */
export const touching = createStore<boolean>(() => false);
