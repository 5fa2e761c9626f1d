// The code of every place, loaded when it is first gone to.
import type { ComponentType } from "react";
import { type Part, part } from "./components/base/part";
import { PlaceAway } from "./components/layout/Away";
import { type PlaceName, placeAt } from "./state/domain/addresses";

const place = (load: () => Promise<{ default: ComponentType }>) => part<object>(load, PlaceAway);

export const CODE: Record<PlaceName, Part<object>> = {
  Day: place(() => import("./places/day/DayPlace")),
  People: place(() => import("./places/people/PeoplePlace")),
  Tests: place(() => import("./places/tests/TestsPlace")),
  Athlete: place(() => import("./places/athlete/AthletePlace")),
  Settings: place(() => import("./places/settings/SettingsPlace")),
  Story: place(() => import("./places/story/StoryPlace")),
  Route: place(() => import("./places/route/RoutePlace")),
  Bench: place(() => import("./places/bench/BenchPlace")),
  Reading: place(() => import("./places/reading/ReadingPlace")),
  Sheet: place(() => import("./places/sheet/SheetPlace")),
};

/** Loads the place an address leads to; needs nobody to be known. */
export const loadAt = (address: string): Promise<void> => CODE[placeAt(address)].load();

/** All the rest: what is gone to later opens at once, and with the server away. */
export const loadAll = (): Promise<unknown> =>
  Promise.allSettled(Object.values(CODE).map((each) => each.load()));
