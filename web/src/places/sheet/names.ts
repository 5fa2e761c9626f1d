// What the sheets and their fields are called.
import type { Kind, Sheets } from "./queries";

export const VOICES: readonly { kind: Kind; name: string; noun: string; whom: string }[] = [
  { kind: "report", name: "Report", noun: "report", whom: "for your own file" },
  { kind: "letter", name: "Letter", noun: "letter", whom: "to a doctor or colleague" },
  { kind: "athlete", name: "Athlete", noun: "sheet for the athlete", whom: "in everyday words" },
];

const FIELDS: Readonly<Record<string, string>> = {
  to: "To",
  asked: "Asked of you",
  greeting: "Greeting",
  until_then: "Until then",
  last: "Last line",
  to_do: "What to do",
  come_back: "When to come back",
};

export const fieldName = (field: string): string => FIELDS[field] ?? field;

/** What to see to before a sheet leaves. */
export const BEFORE: Readonly<Record<Sheets["before"][number], string>> = {
  emergency_number: "the emergency number is empty",
  phone: "the clinic's telephone is empty",
  night_phone: "the night number is empty",
  letters: "a letter in a name cannot be printed: it shows as ¤",
  long_letter: "the letter is longer than one page",
};

/** All a sheet says, line by line, for those who do not see the page. */
export function linesOf(sheets: Sheets, kind: Kind): string[] {
  if (kind === "report") {
    const { rows, whole } = sheets.report;
    return [
      ...rows.flatMap((row) => [
        told([row.name, ...row.about]),
        `Left: ${cellWords(row.left)}`,
        `Right: ${cellWords(row.right)}`,
      ]),
      ...whole.map((line) => `${line.lead}: ${line.says}`),
    ];
  }
  if (kind === "letter") {
    const { letter } = sheets;
    return [
      `To: ${letter.to}. About: ${letter.about}.`,
      `Asked: ${letter.asked} ${letter.sooner}`,
      letter.greeting,
      `Why: ${letter.why.join(" ")}`,
      ...letter.found.map((line) => `${line.side ?? "of no side"}, ${line.lead}: ${line.says}`),
      `Not done: ${letter.not_done.join(" ") || "nothing that was called for was left out"}`,
      `Until then: ${letter.until_then}`,
      letter.last,
    ];
  }
  const { athlete } = sheets;
  if (athlete.alone.length > 0) return athlete.alone;
  return [
    `We looked at ${athlete.looked_at.join(", ") || "nothing yet"}.`,
    athlete.not_yet.length > 0 ? `Not yet: ${athlete.not_yet.join(", ")}.` : "",
    ...athlete.stands_out.map((line) => line.says),
    ...athlete.to_do,
    ...athlete.come_back,
    `Call now if: ${athlete.call_now.join(" ")}`,
    `Call us the same day if: ${athlete.call_same_day.join(" ")}`,
  ].filter(Boolean);
}

const cellWords = (cell: { strength?: string | null; lines: string[] }): string =>
  told([cell.strength ?? "", ...cell.lines]);

/** In sentences, whether or not each came with its full stop. */
const told = (parts: readonly string[]): string =>
  parts
    .filter(Boolean)
    .map((part) => part.replace(/\.$/, ""))
    .join(". ");
