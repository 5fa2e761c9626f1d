// Runs before anything else of the app: what the first place needs is asked for while the rest loads.
import { readCatalogue } from "./api/catalogue";
import { askEarly } from "./api/early";
import { readScreen } from "./api/screens";
import { whoIsHere } from "./api/session";
// How long nobody was at this device is told with the very first call.
import "./state/device/services";
import { screenIn } from "./state/domain/addresses";

askEarly("entry", whoIsHere);
const screen = screenIn(window.location.pathname);
if (screen) {
  askEarly("catalogue", readCatalogue);
  askEarly(`screen ${screen}`, () => readScreen(screen));
}
