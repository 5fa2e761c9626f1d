import { useEffect, useState } from "react";
import { clock, elapsed } from "./clock";

const LOOK_EVERY_MS = 100;

/** The seconds of the running clock, looked at ten times a second. */
export function useSeconds(runs: boolean): number {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    if (!runs) return;
    setSeconds(0);
    const timer = setInterval(() => {
      const running = clock.getState();
      if (running) setSeconds(elapsed(running));
    }, LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [runs]);
  return seconds;
}
