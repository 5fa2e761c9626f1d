// The outline of a row of ellipsoids: each two neighbours share one hull, all hulls one path. Paths are
// written in tenths of the sheet's unit, as whole numbers: that is what makes a figure quick to draw.
import type { Camera } from "./camera";
import type { Node, Part } from "./skeleton/shape";
import { dot, type Frame, point, type Vec } from "./space";

export const PATH_SCALE = 10;

type Way = readonly [number, number];

const roundOf = (sides: number): readonly Way[] =>
  Array.from({ length: sides }, (_, i) => {
    const turn = (2 * Math.PI * i) / sides;
    return [Math.cos(turn), Math.sin(turn)] as const;
  });

// As many corners as the eye needs at a size, from small to large, in units of the sheet.
const ROUNDS = [
  { upTo: 4, ways: roundOf(7) },
  { upTo: 9, ways: roundOf(10) },
  { upTo: 20, ways: roundOf(18) },
  { upTo: Number.POSITIVE_INFINITY, ways: roundOf(28) },
] as const;

/** An ellipsoid on the sheet: its middle, and its three axes a, b, c laid flat, in tenths. */
interface Flat {
  x: number;
  y: number;
  ax: number;
  ay: number;
  bx: number;
  by: number;
  cx: number;
  cy: number;
  size: number;
}

export interface Outline {
  d: string;
  /** How far from the eye, by the middle of its nodes. */
  depth: number;
}

export function outlineOf(part: Part, frame: Frame, camera: Camera): Outline {
  const d = linksOutline(part, part.links, frame, camera);
  return { d, depth: depthOf(part, frame, camera) };
}

/** The part as one hull of all its nodes: enough where it is a few units large. */
export function wholeOutline(part: Part, frame: Frame, camera: Camera): Outline {
  const nodes = part.nodes.map((node) => flatten(node, frame, camera));
  return { d: hull(nodes), depth: depthOf(part, frame, camera) };
}

function depthOf(part: Part, frame: Frame, camera: Camera): number {
  let depth = 0;
  for (const [x, y, z] of part.nodes) depth += dot(camera.look, point(frame, [x, y, z]));
  return depth / part.nodes.length;
}

/** The outline of some of a part's links. */
export function linksOutline(
  part: Part,
  links: Part["links"],
  frame: Frame,
  camera: Camera,
): string {
  const flats = new Map<number, Flat>();
  const flat = (index: number): Flat[] => {
    const known = flats.get(index);
    if (known) return [known];
    const node = part.nodes[index];
    if (!node) return [];
    const made = flatten(node, frame, camera);
    flats.set(index, made);
    return [made];
  };
  let d = "";
  for (const [a, b] of links) d += hull([...flat(a), ...flat(b)]);
  return d;
}

function flatten([x, y, z, rx, ry, rz]: Node, frame: Frame, camera: Camera): Flat {
  const [px, py] = camera.project(point(frame, [x, y, z]));
  const scale = camera.scale * PATH_SCALE;
  const { right, up } = camera;
  return {
    x: px * PATH_SCALE,
    y: py * PATH_SCALE,
    ax: dot(frame.x, right) * rx * scale,
    ay: -dot(frame.x, up) * rx * scale,
    bx: dot(frame.y, right) * ry * scale,
    by: -dot(frame.y, up) * ry * scale,
    cx: dot(frame.z, right) * rz * scale,
    cy: -dot(frame.z, up) * rz * scale,
    size: Math.max(rx, ry, rz) * camera.scale,
  };
}

/** In each direction round, the farthest point of any of them. */
function hull(flats: readonly Flat[]): string {
  let size = 0;
  for (const flat of flats) size = Math.max(size, flat.size);
  const { ways } = ROUNDS.find(({ upTo }) => size <= upTo) ?? ROUNDS[0];
  const corners: string[] = [];
  for (const [dx, dy] of ways) {
    let far = Number.NEGATIVE_INFINITY;
    let fx = 0;
    let fy = 0;
    for (const f of flats) {
      const a = f.ax * dx + f.ay * dy;
      const b = f.bx * dx + f.by * dy;
      const c = f.cx * dx + f.cy * dy;
      const h = Math.sqrt(a * a + b * b + c * c) || 1;
      const out = f.x * dx + f.y * dy + h;
      if (out > far) {
        far = out;
        fx = f.x + (f.ax * a + f.bx * b + f.cx * c) / h;
        fy = f.y + (f.ay * a + f.by * b + f.cy * c) / h;
      }
    }
    corners.push(`${Math.round(fx)} ${Math.round(fy)}`);
  }
  return `M${corners.join("L")}Z`;
}

/** The outline of a box between two corners of the room. */
export function boxOutline(low: Vec, high: Vec, camera: Camera): string {
  const flat: [number, number][] = [];
  for (const x of [low[0], high[0]])
    for (const y of [low[1], high[1]])
      for (const z of [low[2], high[2]]) flat.push(camera.project([x, y, z]));
  const corner = ([x, y]: [number, number]) =>
    `${Math.round(x * PATH_SCALE)} ${Math.round(y * PATH_SCALE)}`;
  return `M${hullOf(flat).map(corner).join("L")}Z`;
}

function hullOf(points: [number, number][]): [number, number][] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (row: [number, number][]) => {
    const kept: [number, number][] = [];
    for (const p of row) {
      while (kept.length > 1 && !leftTurn(kept.at(-2), kept.at(-1), p)) kept.pop();
      kept.push(p);
    }
    return kept.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

function leftTurn(
  a: [number, number] | undefined,
  b: [number, number] | undefined,
  c: [number, number],
): boolean {
  if (!a || !b) return true;
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) > 0;
}
