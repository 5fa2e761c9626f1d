// The body's parts from far to near, each with an edge of ground; joints closed where limbs meet.
import type { Body, Limb } from "./body";
import type { Camera } from "./camera";
import type { Shows } from "./kinds/kind";
import { linksOutline, outlineOf, wholeOutline } from "./outline";
import { FLESH, type PartName } from "./skeleton/flesh";
import type { Part } from "./skeleton/shape";

export type Tone =
  | "near"
  | "far"
  | "trunk"
  | "shorts"
  | "far-shorts"
  | "hair"
  | "couch"
  | "bone"
  | "ghost";

export interface Fill {
  kind: "fill";
  d: string;
  tone: Tone;
  edge: boolean;
}

interface Piece {
  name: PartName;
  limb: Limb;
  d: string;
  depth: number;
  tone: Tone;
}

const LEG: readonly PartName[] = ["thigh", "shank", "foot", "forefoot", "toes"];
const LOWER: readonly PartName[] = ["shank", "foot", "forefoot", "toes"];
const ARM: readonly PartName[] = ["upper_arm", "forearm", "hand"];

// The links by which a part joins the next one: redrawn over the seam where the two meet.
const ENDS: Readonly<Partial<Record<PartName, Partial<Record<PartName, Part["links"]>>>>> = {
  thigh: { shank: [[6, 7]] },
  shank: {
    thigh: [[0, 1]],
    foot: [
      [7, 8],
      [8, 9],
    ],
  },
  foot: {
    shank: [
      [0, 2],
      [0, 3],
      [0, 4],
    ],
    forefoot: [
      [5, 7],
      [6, 7],
      [4, 5],
    ],
  },
  forefoot: {
    foot: [
      [0, 1],
      [0, 2],
      [0, 3],
    ],
    toes: [
      [0, 1],
      [0, 2],
      [1, 3],
      [3, 2],
    ],
  },
  toes: {
    forefoot: [
      [0, 2],
      [2, 4],
      [4, 6],
      [6, 8],
    ],
  },
  upper_arm: { forearm: [[3, 4]] },
  forearm: { upper_arm: [[0, 1]], hand: [[2, 3]] },
  hand: { forearm: [[0, 1]] },
};
// A body that stands small: its short parts are one hull each, and its joints need no closing.
const SMALL = 0.2;
const SHORT: ReadonlySet<PartName> = new Set([
  "pelvis",
  "head",
  "hair",
  "foot",
  "forefoot",
  "toes",
  "hand",
]);
// How far down the thigh the shorts reach.
const SHORTS: Part["links"] = [
  [0, 1],
  [1, 2],
];

export function* flesh(body: Body, camera: Camera, shows: Shows): Iterable<Fill> {
  const pieces = piecesOf(body, camera, shows).sort((a, b) => b.depth - a.depth);
  const links = ({ name, limb }: Piece, which: Part["links"]) =>
    linksOutline(FLESH[name], which, body[limb][FLESH[name].frame], camera);
  const small = camera.scale < SMALL;
  const drawn: Piece[] = [];
  for (const piece of pieces) {
    const { d, tone } = piece;
    const meets = drawn.filter(
      (other) => other.limb === piece.limb && ENDS[other.name]?.[piece.name],
    );
    yield { kind: "fill", d, tone, edge: !small || meets.length === 0 };
    if (piece.name === "thigh") {
      const shorts = piece.limb === "tested" ? "shorts" : "far-shorts";
      yield { kind: "fill", d: links(piece, SHORTS), tone: shorts, edge: false };
    }
    for (const before of small ? [] : meets) {
      const joined = ENDS[before.name]?.[piece.name] ?? [];
      yield { kind: "fill", d: links(before, joined), tone, edge: false };
    }
    drawn.push(piece);
  }
}

function piecesOf(body: Body, camera: Camera, shows: Shows): Piece[] {
  const pieces: Piece[] = [];
  const piece = (name: PartName, limb: Limb, tone: Tone) => {
    const outlined = camera.scale < SMALL && SHORT.has(name) ? wholeOutline : outlineOf;
    const { d, depth } = outlined(FLESH[name], body[limb][FLESH[name].frame], camera);
    pieces.push({ name, limb, d, depth, tone });
  };
  const lower = shows === "lower" || shows === "lowers";
  const leg = lower ? LOWER : LEG;
  for (const name of leg) piece(name, "tested", "near");
  if (shows !== "leg" && shows !== "lower") for (const name of leg) piece(name, "other", "far");
  if (lower) return pieces;
  if (shows !== "leg") piece("pelvis", "tested", "shorts");
  if (shows !== "all") return pieces;
  piece("trunk", "tested", "trunk");
  piece("head", "tested", "trunk");
  piece("hair", "tested", "hair");
  for (const name of ARM) piece(name, "tested", "trunk");
  for (const name of ARM) piece(name, "other", "far");
  return pieces;
}
