import type { Measure } from "../api/catalogue";
import type { Schema } from "../api/client";
import { type DrawnPanel, draw } from "./draw";
import { KINDS } from "./kinds";
import type { Shown } from "./reads";

export type Figure = Schema["Figure"];

/** What a measure's sector shows: its own usual range, else from zero to the usual end. */
function usualOf(measure: Measure): readonly [number, number] | null {
  if (measure.usual) return measure.usual;
  return measure.usual_adult === null ? null : [0, measure.usual_adult];
}

/** A figure of the catalogue drawn for the left lane, by what was read of its measures. */
export function drawn(
  figure: Figure,
  measures: readonly Measure[],
  numbers: Readonly<Record<string, number | null>>,
  hands: boolean,
): DrawnPanel[] {
  const read: Record<string, Shown> = {};
  for (const [joint, codes] of Object.entries(figure.joints)) {
    const held = codes.find((code) => (numbers[code] ?? null) !== null) ?? codes[0];
    const measure = measures.find((one) => one.code === held);
    if (!held || !measure) continue;
    read[joint] = { value: numbers[held] ?? null, usual: usualOf(measure) };
  }
  return draw(KINDS[figure.kind], {
    read,
    posed: figure.pose,
    hands: hands ? figure.hands : [],
  });
}
