// A line of the history while it is being put together, as text in a draft.

export interface TypedLine {
  kind: string;
  region: string;
  side: string;
  weeks: string;
  count: string;
}

export const EMPTY_LINE: TypedLine = { kind: "", region: "", side: "", weeks: "", count: "" };

export function readLine(text: string | null): TypedLine {
  if (!text) return EMPTY_LINE;
  try {
    return { ...EMPTY_LINE, ...(JSON.parse(text) as Partial<TypedLine>) };
  } catch {
    return EMPTY_LINE;
  }
}

const MOST_WEEKS = 6000;
const MOST_OFTEN = 100;

/** The line as the record holds it, or what it still lacks. Weeks and side may stay unknown. */
export function lineFrom(line: TypedLine): Record<string, string | number> | string {
  if (!line.kind) return "Say what it was.";
  if (!line.region) return "Say of what.";
  const weeks = wholeUpTo(line.weeks, MOST_WEEKS);
  const count = wholeUpTo(line.count, MOST_OFTEN);
  if (weeks === undefined) return "Weeks in digits.";
  if (count === undefined || count === 0) return "How often in digits, from 1 to 100.";
  return {
    region: line.region,
    kind: line.kind,
    ...(line.side ? { side: line.side } : {}),
    ...(weeks === null ? {} : { weeks_ago: weeks }),
    ...(count === null ? {} : { count }),
  };
}

/** Null where nothing stands, undefined where it is no such number. */
function wholeUpTo(text: string, most: number): number | null | undefined {
  if (text.trim() === "") return null;
  const found = /^\d+$/.test(text.trim()) ? Number(text) : Number.NaN;
  return found <= most ? found : undefined;
}
