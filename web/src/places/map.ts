// The code of every place, loaded when it is first gone to.
import type { ComponentType } from "react";
import { PlaceAway } from "../components/Away";
import { type Part, part } from "../components/part";
import { type PlaceName, placeAt } from "../state/addresses";

const place = (load: () => Promise<{ default: ComponentType }>) => part<object>(load, PlaceAway);

export const CODE: Record<PlaceName, Part<object>> = {
  Day: place(() => import("./day/DayPlace")),
  People: place(() => import("./people/PeoplePlace")),
  Tests: place(() => import("./tests/TestsPlace")),
  Athlete: place(() => import("./athlete/AthletePlace")),
  Settings: place(() => import("./settings/SettingsPlace")),
  Story: place(() => import("./story/StoryPlace")),
  Route: place(() => import("./route/RoutePlace")),
  Bench: place(() => import("./bench/BenchPlace")),
  Reading: place(() => import("./reading/ReadingPlace")),
  Sheet: place(() => import("./sheet/SheetPlace")),
};

/** Loads the place an address leads to; needs nobody to be known. */
export const loadAt = (address: string): Promise<void> => CODE[placeAt(address)].load();

/** All the rest: what is gone to later opens at once, and with the server away. */
export const loadAll = (): Promise<unknown> =>
  Promise.allSettled(Object.values(CODE).map((each) => each.load()));
