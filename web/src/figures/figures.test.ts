import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import type { Test } from "../api/catalogue";
import type { Figure } from ".";
import { drawn } from ".";
import { bodyOf, placeOf } from "./body";
import { cameraFor, draw, type Shape, standsBy } from "./draw";
import { handShape } from "./hands";
import { KINDS } from "./kinds";
import type { Kind } from "./kinds/kind";
import { drawnAngle } from "./reads";
import { isLandmark } from "./skeleton/landmarks";
import { MM_PER_UNIT } from "./skeleton/shape";

const TESTS = JSON.parse(readFileSync("../docs/catalogue.json", "utf8")) as Test[];
const FIGURES = TESTS.flatMap((test) =>
  test.steps.map((step) => {
    if (!step.figure) throw new Error(`${test.code} has a step without its figure`);
    return { name: `${test.code} ${step.code}`, test, figure: step.figure };
  }),
);

const shapesOf = (figure: Figure, test: Test, numbers: Record<string, number> = {}): Shape[] =>
  drawn(figure, test.measures, numbers, true).flatMap((panel) => [...panel.shapes]);

/** Every joint a figure reads, with the measure that moves it and its plausible range. */
const READS = FIGURES.flatMap(({ name, test, figure }) =>
  Object.entries(figure.joints).map(([joint, codes]) => {
    const measure = test.measures.find((one) => one.code === codes[0]);
    const [low, high] = measure?.plausible ?? [0, 0];
    return { name: `${name} ${joint}`, kind: KINDS[figure.kind] as Kind, joint, low, high };
  }),
);

function sceneOf(kind: Kind, joint: string, value: number) {
  const read = kind.reads?.[joint];
  const numbers = standsBy(kind, { read: { [joint]: { value, usual: null } } });
  const panel = kind.panels[read?.panel ?? 0];
  if (!panel) throw new Error("a reading without its panel");
  const body = bodyOf((panel.pose ?? kind.pose)(numbers));
  return { read, body, camera: cameraFor(panel, body) };
}

describe("every figure of the catalogue", () => {
  it.each(FIGURES)("$name is drawn, with hands at known places", ({ test, figure }) => {
    const text = JSON.stringify(shapesOf(figure, test));
    expect(text).toContain('"near"');
    expect(text).not.toMatch(/null,|NaN|Infinity/);
    for (const hand of figure.hands) {
      for (const place of [hand.at, hand.way?.about]) {
        if (typeof place === "string") expect(isLandmark(place), place).toBe(true);
      }
    }
  });

  it.each(READS)("$name reads what the drawing knows", ({ kind, joint }) => {
    const posed = new Set(Object.keys(kind.reads ?? {}));
    const moves =
      JSON.stringify(draw(kind, shown(joint, 3))) !==
      JSON.stringify(
        draw(kind, {
          read: {},
          posed: { [joint]: 30 },
        }),
      );
    expect(posed.has(joint) || moves).toBe(true);
  });

  it("no two tests show the very same picture", () => {
    const seen = new Map<string, string>();
    const twins: string[] = [];
    for (const { name, test, figure } of FIGURES) {
      const picture = JSON.stringify(shapesOf(figure, test));
      const [own] = name.split(" ");
      const other = seen.get(picture);
      if (other && other !== own) twins.push(`${other} and ${own}`);
      seen.set(picture, own ?? name);
    }
    // The same place looked at, stood on or walked across, with nothing in hand to tell them apart.
    expect(twins.length, twins.join("; ")).toBeLessThanOrEqual(4);
  });
});

const shown = (joint: string, value: number) => ({
  read: { [joint]: { value, usual: null } },
});

// Let down against plus, straightened against what it falls short.
const RISES_AGAINST_THE_HAND: ReadonlySet<string> = new Set(["thigh_drop", "knee_short"]);

const ANGLES = READS.filter(({ kind, joint }) => kind.reads?.[joint]?.of === "angle");
const LENGTHS = READS.filter(({ kind, joint }) => kind.reads?.[joint]?.of === "length");

describe("an angle as a protractor on the picture reads it", () => {
  it.each(ANGLES)(
    "$name equals the number through its plausible range",
    ({ kind, joint, low, high }) => {
      expect(high).toBeGreaterThan(low);
      for (let value = low; value <= high; value += 1) {
        const { read, body, camera } = sceneOf(kind, joint, value);
        if (read?.of !== "angle") throw new Error("not an angle");
        expect(Math.abs(drawnAngle(read, body, camera) - value), `at ${value}`).toBeLessThan(0.5);
      }
    },
  );

  it("reads the limb, not the number", () => {
    const kind = KINDS.supine_flexion as Kind;
    const read = kind.reads?.flexion;
    const [panel] = kind.panels;
    if (read?.of !== "angle" || !panel) throw new Error("no angle");
    const body = bodyOf({ position: "supine", tested: { flexion: 40 } });
    expect(drawnAngle(read, body, cameraFor(panel, body))).toBeCloseTo(40, 0);
  });

  it("draws arm and arc once a number is there, and the usual range before", () => {
    const still = draw(KINDS.hanging_leg, {
      read: { thigh_angle: { value: null, usual: [-20, 0] } },
    }).flatMap(({ shapes }) => shapes.map(({ kind }) => kind));
    const read = draw(KINDS.hanging_leg, {
      read: { thigh_angle: { value: 12, usual: [-20, 0] } },
    }).flatMap(({ shapes }) => shapes.map(({ kind }) => kind));
    expect(still).toContain("sector");
    expect(still).not.toContain("arc");
    expect(read).toEqual(expect.arrayContaining(["sector", "arc", "arm", "axis"]));
  });
});

describe("a height", () => {
  it.each(
    LENGTHS.filter(({ kind, joint }) => {
      const read = kind.reads?.[joint];
      return read?.of === "length" && read.from === "below";
    }),
  )("$name stands as high as it says, where a body reaches", ({ kind, joint }) => {
    for (const millimetres of [60, 120, 170]) {
      const { read, body } = sceneOf(kind, joint, millimetres);
      if (read?.of !== "length") throw new Error("not a length");
      const reachable = joint === "height_standing" ? 60 : joint === "height" ? 120 : 170;
      if (millimetres > reachable) continue;
      expect(placeOf(body, read.to)[2] * MM_PER_UNIT).toBeCloseTo(millimetres, 0);
    }
  });
});

describe("a hand that moves the limb", () => {
  const moving = FIGURES.flatMap(({ name, figure }) =>
    Object.keys(figure.joints).flatMap((joint) =>
      figure.hands
        .filter((hand) => hand.way && hand.limb === "tested" && !hand.way.both)
        .map((hand) => ({
          name: `${name} ${joint}`,
          kind: KINDS[figure.kind] as Kind,
          joint,
          hand,
        })),
    ),
  );
  it.each(moving)("$name: $hand.at pushes the way the number grows", ({ kind, joint, hand }) => {
    const read = kind.reads?.[joint];
    // A height grows the other way than the hand presses; a drop is measured upwards.
    if (read?.of !== "angle") return;
    const example = kind.example[joint] ?? 10;
    const at = (value: number) => {
      const { body, camera } = sceneOf(kind, joint, value);
      return handShape(hand, body, camera);
    };
    const [one, two] = [at(example), at(example + 2)];
    if (!one || !two) throw new Error("no hand");
    const moves = { x: two.at.x - one.at.x, y: two.at.y - one.at.y };
    if (Math.hypot(moves.x, moves.y) < 0.15) return;
    const first = one.arrow[0];
    const last = one.arrow[1];
    if (!first || !last) throw new Error("no arrow");
    const along = (last.x - first.x) * moves.x + (last.y - first.y) * moves.y;
    expect(along * (RISES_AGAINST_THE_HAND.has(joint) ? -1 : 1)).toBeGreaterThan(0);
  });
});
