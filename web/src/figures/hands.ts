// Where the examiner's hands go and which way they push. Rings hold, a dot feels, a star taps.
import type { Schema } from "../api/client";
import { type Body, placeOf, wayOf } from "./body";
import type { Camera, Point } from "./camera";
import { isLandmark, type Landmark } from "./skeleton/landmarks";
import type { Place } from "./skeleton/shape";
import { add, swung, times, unit, type Vec } from "./space";

export type Hand = Schema["Hand"];
type Way = NonNullable<Hand["way"]>;

export interface HandShape {
  kind: "hand";
  does: Hand["does"];
  at: Point;
  radius: number;
  behind: boolean;
  /** The arrow's line, its head at the last point, and at the first too where it goes both ways. */
  arrow: readonly Point[];
  both: boolean;
}

const RADIUS = { usual: 8, small: 6 };
const ARROW = 26;
const ROUND = 26;

const known = (at: Hand["at"]): Landmark | Place | null =>
  typeof at !== "string" ? at : isLandmark(at) ? at : null;

export function handShape(hand: Hand, body: Body, camera: Camera): HandShape | null {
  const place = known(hand.at);
  if (place === null) return null;
  const at = placeOf(body, place, hand.limb);
  const radius = hand.small ? RADIUS.small : RADIUS.usual;
  return {
    kind: "hand",
    does: hand.does,
    at: flat(camera, at),
    radius,
    behind: hand.behind,
    arrow: hand.way ? arrowOf(hand, hand.way, at, radius, body, camera) : [],
    both: hand.way?.both ?? false,
  };
}

function arrowOf(
  hand: Hand,
  way: Way,
  at: Vec,
  radius: number,
  body: Body,
  camera: Camera,
): readonly Point[] {
  const { limb } = hand;
  const about = way.about === null ? null : known(way.about);
  if (way.turn && about) {
    const axis = wayOf(body, way.turn, limb);
    // A limb of the other side is a mirror: its turns run the other way about.
    const sense = limb === "tested" ? 1 : -1;
    const middle = placeOf(body, about, limb);
    const far = way.degrees ?? ROUND;
    return [0.25, 0.4, 0.55, 0.7, 0.85, 1].map((part) =>
      flat(camera, swung(at, middle, axis, sense * far * part)),
    );
  }
  if (!way.along) return [];
  const direction = unit(wayOf(body, way.along, limb));
  const step = (units: number) => flat(camera, add(at, times(direction, units / camera.scale)));
  if (way.both) return [step(-ARROW), step(ARROW)];
  return hand.into ? [step(-radius - ARROW), step(-radius)] : [step(radius), step(radius + ARROW)];
}

const flat = (camera: Camera, at: Vec): Point => {
  const [x, y] = camera.project(at);
  return { x, y };
};
