// What a finger found, point by point: not pressed, pressed and not tender, tender, or sore and left
// unpressed. Two lists say it: which were pressed, which hurt.

export type Mark = "open" | "clear" | "tender" | "sore";

/** As they stand. No list of what was pressed beside one of what hurt: every point was pressed. */
export interface Pressing {
  tender: readonly string[] | null;
  pressed: readonly string[] | null;
}

/** A list of codes as it stands in a field. */
export const listed = (value: unknown): readonly string[] | null =>
  Array.isArray(value) ? value.map(String) : null;

const AFTER: Record<Mark, Mark> = { open: "clear", clear: "tender", tender: "sore", sore: "open" };

export const MARK_WORDS: Record<Mark, string> = {
  open: "not pressed yet",
  clear: "pressed, not tender",
  tender: "pressed, tender",
  sore: "sore, left unpressed",
};

const reached = ({ tender, pressed }: Pressing, all: readonly string[]): readonly string[] =>
  pressed ?? (tender === null ? [] : all);

export function markOf(code: string, held: Pressing, all: readonly string[]): Mark {
  const pressed = reached(held, all).includes(code);
  if (held.tender?.includes(code)) return pressed ? "tender" : "sore";
  return pressed ? "clear" : "open";
}

/** One tap on a point: pressed, again tender, again sore and left alone, again nothing. */
export function afterPress(code: string, held: Pressing, all: readonly string[]): Pressing {
  return marked(code, AFTER[markOf(code, held, all)], held, all);
}

/** Every point of a view that nobody touched yet was pressed and is not tender. */
export function restClear(
  codes: readonly string[],
  held: Pressing,
  all: readonly string[],
): Pressing {
  return codes
    .filter((code) => markOf(code, held, all) === "open")
    .reduce((now, code) => marked(code, "clear", now, all), held);
}

function marked(code: string, mark: Mark, held: Pressing, all: readonly string[]): Pressing {
  const others = (list: readonly string[]) => list.filter((other) => other !== code);
  const tender = others(held.tender ?? []);
  const pressed = others(reached(held, all));
  const hurts = mark === "tender" || mark === "sore";
  const touched = mark === "clear" || mark === "tender";
  const next = {
    tender: hurts ? inOrder([...tender, code], all) : tender,
    pressed: touched ? inOrder([...pressed, code], all) : pressed,
  };
  // Nothing touched is nothing said.
  return next.tender.length + next.pressed.length === 0 ? { tender: null, pressed: null } : next;
}

/** How much of a list was touched, 0 to 1. Sore and left alone is an answer too. */
export function shareTouched(held: Pressing, all: readonly string[]): number {
  const touched = all.filter((code) => markOf(code, held, all) !== "open");
  return all.length === 0 ? 0 : touched.length / all.length;
}

/** "13 of 22 pressed, ATFL tender": never "none" alone, while points are left. */
export function pressingWords(
  held: Pressing,
  all: readonly string[],
  label: (code: string) => string,
): string {
  const of = (...marks: Mark[]) => all.filter((code) => marks.includes(markOf(code, held, all)));
  const pressed = of("clear", "tender").length;
  const hurts = of("tender", "sore").map(label);
  const how = hurts.length > 0 ? `${hurts.join(", ")} tender` : "none tender";
  return `${pressed} of ${all.length} pressed, ${how}`;
}

const inOrder = (codes: readonly string[], all: readonly string[]): string[] =>
  all.filter((code) => codes.includes(code));
