import { useEffect } from "react";
import { useLocation } from "react-router";
import { inTurns } from "../../api/polling";
import { sayWhere } from "../../api/screens";
import { deviceName } from "../../state/device/keep";
import { askedHere, hereAt } from "../../state/screen/others";
import { useServices } from "../base/session";
import { useStore } from "../base/useStore";

// Well within what the server takes for gone.
const AGAIN_MS = 4000;

/** Says where this device is on a screen: at once when it moves, and again every few seconds. */
export function useSayWhere(screen: string): void {
  const { keep } = useServices();
  const { test, side } = useStore(askedHere);
  const address = useLocation().pathname;
  useEffect(() => {
    const here = hereAt(address, { test, side });
    if (!here) return;
    return inTurns(async (signal) => {
      if (!document.hidden) await sayWhere(screen, { ...here, device: deviceName(keep) }, signal);
    }, AGAIN_MS);
  }, [screen, keep, address, test, side]);
}
