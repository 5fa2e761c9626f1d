import { useLayoutEffect } from "react";
import { type BenchKey, benchKey } from "../../state/domain/keys";

/**
 * Hears the keys of the bench while this is shown; `heard` says whether it took the key.
 *
 * Listens from the very commit that shows the place: an effect after painting would lose a key that is
 * pressed the moment the next test stands there.
 */
export function useBenchKeys(heard: (key: BenchKey) => boolean): void {
  useLayoutEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const key = benchKey(event);
      if (key !== null && heard(key)) event.preventDefault();
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  });
}
