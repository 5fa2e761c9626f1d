// Runs before anything else of the app: what the first place needs is asked for while the rest loads.
import { readCatalogue } from "./api/catalogue";
import { askEarly } from "./api/early";
import { readScreen } from "./api/screens";
import { whoIsHere } from "./api/session";
// With it comes how long nobody was at this device, told with the very first call.
import { keep } from "./state/device/services";
import { screenIn } from "./state/domain/addresses";

/** What this device keeps is there before anything asks for it; a store that cannot be read holds nobody up. */
export const kept = keep.open().catch(() => undefined);

askEarly("entry", whoIsHere);
const screen = screenIn(window.location.pathname);
if (screen) {
  askEarly("catalogue", readCatalogue);
  askEarly(`screen ${screen}`, () => readScreen(screen));
}
