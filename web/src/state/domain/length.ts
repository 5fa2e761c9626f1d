// Lengths are kept in millimetres, and typed and shown in the unit the hand is used to.
import type { Measure } from "../../api/catalogue";

export type LengthUnit = "mm" | "cm" | "in";

export const LENGTH_UNITS: readonly LengthUnit[] = ["mm", "cm", "in"];

const MILLIMETRES: Record<LengthUnit, number> = { mm: 1, cm: 10, in: 25.4 };
const DECIMALS: Record<LengthUnit, number> = { mm: 1, cm: 2, in: 2 };

const rounded = (value: number, decimals: number): number =>
  Math.round(value * 10 ** decimals) / 10 ** decimals;

/** As it is kept: to a tenth of a millimetre, finer than any tape. */
export const toMillimetres = (value: number, unit: LengthUnit): number =>
  unit === "mm" ? value : rounded(value * MILLIMETRES[unit], 1);

export const fromMillimetres = (value: number, unit: LengthUnit): number =>
  unit === "mm" ? value : rounded(value / MILLIMETRES[unit], DECIMALS[unit]);

/** The unit a measure is typed in: only lengths have a choice. */
export const unitFor = (measure: Measure, chosen: LengthUnit): LengthUnit =>
  measure.unit === "mm" ? chosen : "mm";

export const nextUnit = (unit: LengthUnit): LengthUnit =>
  LENGTH_UNITS[(LENGTH_UNITS.indexOf(unit) + 1) % LENGTH_UNITS.length] ?? "mm";
