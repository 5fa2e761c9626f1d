// A figure from a kind, its numbers and the hands: body far to near, bones, readings, hands.
import { type Body, bodyOf, type Limb, placeOf } from "./body";
import { type Camera, cameraOf, SHEET } from "./camera";
import { flesh, type Tone } from "./flesh";
import { type Hand, type HandShape, handShape } from "./hands";
import type { Kind, Numbers, Panel } from "./kinds/kind";
import { boxOutline, outlineOf } from "./outline";
import { type ReadShape, readShapes, type Shown } from "./reads";
import { BONES } from "./skeleton/bones";
import { LIGAMENTS } from "./skeleton/landmarks";
import type { Part } from "./skeleton/shape";

export type Shape =
  | { kind: "fill"; d: string; tone: Tone; edge: boolean }
  | { kind: "band"; x1: number; y1: number; x2: number; y2: number }
  | ReadShape
  | HandShape;

export interface DrawnPanel {
  window: readonly [number, number];
  shapes: readonly Shape[];
}

export interface Asked {
  /** What was read, by joint. */
  read: Readonly<Record<string, Shown>>;
  /** What the catalogue poses it by besides. */
  posed?: Numbers;
  hands?: readonly Hand[];
}

/** The numbers a figure stands by: its example, what the test poses, what was read. */
export function standsBy(kind: Kind, asked: Asked): Numbers {
  const read: Record<string, number> = {};
  for (const [joint, shown] of Object.entries(asked.read)) {
    if (shown.value !== null) read[joint] = shown.value;
  }
  const posed = { ...asked.posed, ...read };
  const named = Object.keys(posed);
  // An example of one joint says nothing once another stands for the same limb.
  const rivals = kind.reads ? Object.keys(kind.reads) : [];
  const replaced =
    named.some((code) => rivals.includes(code)) && !named.every((c) => c in kind.example);
  const example = replaced
    ? Object.fromEntries(Object.entries(kind.example).filter(([c]) => !rivals.includes(c)))
    : kind.example;
  return { ...example, ...posed };
}

export function draw(kind: Kind, asked: Asked): DrawnPanel[] {
  const numbers = standsBy(kind, asked);
  const own = bodyOf(kind.pose(numbers));
  return kind.panels.map((panel, index) => {
    const body = panel.pose ? bodyOf(panel.pose(numbers)) : own;
    const camera = cameraFor(panel, body);
    const readings = readingsOn(index, kind, asked, body, camera);
    // The usual range lies behind the limb, the arms over it.
    const shapes: Shape[] = [
      ...boxesOf(panel, numbers, camera),
      ...readings.filter((shape) => shape.kind === "sector"),
      ...scene(panel, body, camera, numbers),
      ...readings.filter((shape) => shape.kind !== "sector"),
    ];
    for (const hand of index === 0 ? (asked.hands ?? []) : []) {
      const shape = handShape(hand, body, camera);
      if (shape) shapes.push(shape);
    }
    return { window: panel.window ?? [0, SHEET.width], shapes };
  });
}

function readingsOn(index: number, kind: Kind, asked: Asked, body: Body, camera: Camera) {
  return Object.entries(asked.read).flatMap(([joint, shown]): ReadShape[] => {
    const read = kind.reads?.[joint];
    return read && (read.panel ?? 0) === index ? readShapes(read, shown, body, camera) : [];
  });
}

export function cameraFor(panel: Panel, body: Body): Camera {
  const [held, x, y] = panel.hold;
  return cameraOf(panel.view, panel.scale, placeOf(body, held, panel.limb), [x, y]);
}

function* boxesOf(panel: Panel, numbers: Numbers, camera: Camera): Iterable<Shape> {
  const boxes = typeof panel.boxes === "function" ? panel.boxes(numbers) : panel.boxes;
  for (const [low, high] of boxes ?? []) {
    yield { kind: "fill", d: boxOutline(low, high, camera), tone: "couch", edge: false };
  }
}

function* scene(panel: Panel, body: Body, camera: Camera, numbers: Numbers): Iterable<Shape> {
  for (const ghost of panel.ghosts ?? []) {
    for (const shape of flesh(bodyOf(ghost(numbers)), camera, panel.shows ?? "all")) {
      yield { ...shape, tone: "ghost", edge: false };
    }
  }
  yield* flesh(body, camera, panel.shows ?? "all");
  yield* bonesOf(panel, body, camera);
}

function* bonesOf(panel: Panel, body: Body, camera: Camera): Iterable<Shape> {
  const limbs: Limb[] = panel.bonesOf === "both" ? ["other", "tested"] : ["tested"];
  const drawn: { d: string; depth: number }[] = [];
  for (const limb of limbs) {
    for (const name of panel.bones ?? []) {
      const part: Part = BONES[name];
      drawn.push(outlineOf(part, body[limb][part.frame], camera));
    }
  }
  for (const { d } of drawn.sort((a, b) => b.depth - a.depth)) {
    yield { kind: "fill", d, tone: "bone", edge: true };
  }
  for (const name of panel.ligaments ?? []) {
    const [from, to] = LIGAMENTS[name];
    const [x1, y1] = camera.project(placeOf(body, from));
    const [x2, y2] = camera.project(placeOf(body, to));
    yield { kind: "band", x1, y1, x2, y2 };
  }
}
