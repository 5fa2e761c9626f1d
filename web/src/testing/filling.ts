// Fills one test at the bench by its data alone: every measure, every key, both sides, as a hand would.
// It asks nothing of the bench's own lists: a row the bench leaves out is missed here.
import { expect } from "vitest";
import { type Locator, page } from "vitest/browser";
import type { Measure, Step, Test } from "../api/catalogue";
import type { Side } from "../api/client";
import { type Json, type Lane, placeKey } from "../state/domain/fields";
import { measureOf } from "./bench";

export type Written = Map<string, Json>;
type Note = (side: Lane, key: string, field: string, value: Json) => void;

const SIDES: readonly Side[] = ["left", "right"];
// A repeat of a handful is tapped as a number.
const TALLY_UP_TO = 10;

/** Writes everything there is to write; gives what was written, by place. */
export async function fill(test: Test, steps: readonly Step[]): Promise<Written> {
  const written: Written = new Map();
  const note: Note = (side, key, field, value) => {
    written.set(placeKey({ test: test.code, side, key, field }), value);
  };
  for (const step of steps) {
    for (const part of [fillStep, fillOtherWays]) {
      if (steps.length > 1)
        await exact("button", new RegExp(`^\\d ${escaped(step.title)}`)).click();
      await part(test, step, note);
    }
  }
  return written;
}

async function fillStep(test: Test, step: Step, note: Note): Promise<void> {
  const rows = step.measures.map((code) => measureOf(test, code)).filter((m) => isRow(test, m));
  const onMap = rows.filter(({ code }) => step.map?.measures.includes(code));
  const below = rows.filter((measure) => !onMap.includes(measure));
  for (const { key, label } of keysOf(test)) {
    if (rows.length === 0) await hurt(test, key, label, note);
    for (const measure of onMap) await tapSpot(step, measure, key, label, note);
    for (const measure of below) {
      const several = below.length > 1 ? `${label}: ${measure.label.toLowerCase()}` : label;
      for (const side of lanesOf(test, measure)) {
        await fillRow(measure, label ? several : measure.label, side, key, note);
      }
    }
  }
}

/** What can stand in a row's place: the other is offered, and keeps what it holds. */
async function fillOtherWays(test: Test, step: Step, note: Note): Promise<void> {
  for (const measure of step.measures.map((code) => measureOf(test, code))) {
    if (!measure.instead_of && !measure.either_or) continue;
    await exact("button", measure.label).click();
    for (const side of SIDES) await fillRow(measure, measure.label, side, "", note);
  }
}

async function hurt(test: Test, key: string, label: string, note: Note): Promise<void> {
  for (const side of SIDES) {
    const name = label ? `Pain, ${label}, ${side}` : `Pain, ${side}`;
    await exact("button", "Hurts", exact("group", name)).click();
    note(test.sides === "both" ? null : side, key, "pain", { present: true });
  }
}

/** Two taps on its place: the second of the answers, the expected one standing first. */
async function tapSpot(step: Step, measure: Measure, key: string, label: string, note: Note) {
  const codes = measure.choices.map(({ code }) => code);
  const first = codes.find((code) => code === measure.normal) ?? codes[0];
  const region = exact("region", step.map?.ask ?? "");
  for (const side of SIDES) {
    const name = new RegExp(`^${escaped(label || measure.label)}, ${side}:`);
    const point = await withinReach(region, side, name);
    await point.click();
    await point.click();
    note(side, key, `values.${measure.code}`, codes.find((code) => code !== first) ?? null);
  }
}

/** On a phone the other lane leans away: a tap anywhere on it brings it here. */
async function withinReach(region: Locator, side: Side, name: RegExp): Promise<Locator> {
  // Drawings come when a test asks on one.
  await expect.element(region).toBeInTheDocument();
  const lane = region.element().querySelector<HTMLElement>(`[class*='map-lanes'] > .lane-${side}`);
  if (!lane) throw new Error(`there is no ${side} lane`);
  if (lane.getBoundingClientRect().width < 100) {
    await page.elementLocator(lane).click({ position: { x: 8, y: 8 } });
  }
  return region.getByRole("button", { name }).first();
}

async function fillRow(measure: Measure, called: string, side: Lane, key: string, note: Note) {
  const name = `${called}, ${side ?? "both"}`;
  const lanes: readonly Lane[] = measure.about_person ? SIDES : [side];
  const say = (code: string, value: Json) => {
    for (const lane of lanes) note(lane, key, `values.${code}`, value);
  };
  if (measure.map) {
    await press(measure, side ?? "left", say);
  } else if (isTyped(measure)) {
    const [low, high] = measure.plausible ?? [0, 100];
    const value = Math.round((low + high) / 2);
    await page.getByLabelText(name, { exact: true }).fill(String(value));
    (document.activeElement as HTMLElement).blur();
    say(measure.code, value);
  } else {
    const [label, value] = lastOption(measure);
    await exact("button", label, exact("group", name)).click();
    say(measure.code, value);
  }
}

/** The first point of the first view: pressed and tender, or seen there. */
async function press(measure: Measure, side: Side, say: (code: string, value: Json) => void) {
  const region = exact("region", measure.label);
  const point = await withinReach(region, side, new RegExp(`, ${side}: `));
  const label = (point.element().getAttribute("aria-label") ?? "").split(`, ${side}`)[0];
  const code = measure.choices.find((choice) => choice.label === label)?.code ?? "";
  await point.click();
  if (measure.map?.pressed) {
    await point.click();
    say(measure.map.pressed, [code]);
  }
  say(measure.code, [code]);
}

/** The last thing that can be said, as its plate says it. */
function lastOption(measure: Measure): [string, Json] {
  if (measure.kind === "flag") return ["Yes", true];
  const last = measure.choices.at(-1);
  if (last) return [last.label, measure.kind === "choices" ? [last.code] : last.code];
  if (measure.kind === "strength") return ["4", "4"];
  const top = Math.max(...(measure.allowed.length ? measure.allowed : (measure.plausible ?? [])));
  const grade = measure.grades.at(-1);
  return [grade ? `${top} ${grade}` : String(top).replace("-", "−"), top];
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");

function exact(role: string, name: string | RegExp, within: Locator | typeof page = page): Locator {
  return within.getByRole(role, { name, exact: typeof name === "string" });
}

function lanesOf(test: Test, measure: Measure): readonly Lane[] {
  if (test.sides === "both" && !measure.per_side) return [null];
  return measure.about_person ? SIDES.slice(0, 1) : SIDES;
}

/** Each bone, toe, space or position with its words; one without any where the test has none. */
function keysOf(test: Test): { key: string; label: string }[] {
  if (!test.key) return [{ key: "", label: "" }];
  const measure = measureOf(test, test.key);
  if (measure.choices.length > 0) {
    return measure.choices.map(({ code, label }) => ({ key: code, label }));
  }
  const [low, high] = measure.plausible ?? [0, 0];
  const all = Array.from({ length: high - low + 1 }, (_, at) => low + at);
  return (measure.allowed.length ? measure.allowed : all).map((number) => ({
    key: String(number),
    label: String(number),
  }));
}

/** Not the key, not the second way of reading, not what a map answers along with another. */
function isRow(test: Test, measure: Measure): boolean {
  const along = test.measures.some((other) => other.map?.pressed === measure.code);
  return measure.code !== test.key && !measure.instead_of && !measure.either_or && !along;
}

const NUMERIC: ReadonlySet<string> = new Set([
  "angle",
  "length",
  "count",
  "time",
  "force",
  "score",
]);

function isTyped(measure: Measure): boolean {
  const high = measure.plausible?.[1] ?? 0;
  const tapped = measure.kind === "grade" || (measure.kind === "count" && high <= TALLY_UP_TO);
  return NUMERIC.has(measure.kind) && !tapped;
}
