import { useEffect } from "react";
import { benchKey } from "../../state/keys";

/** The key that says the rest of a map, heard while the map is there. */
export function useRestOfMap(rest: () => void): void {
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (benchKey(event) !== "rest-of-map") return;
      event.preventDefault();
      rest();
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  });
}
