// Rows of the audit in words: what was done, and what little is kept of it.
import { readable } from "./wording";

interface Row {
  verb: string;
  noun: string;
  detail: unknown;
}

/** "amend screen: number 1" */
export function auditWords({ verb, noun, detail }: Row): string {
  const what = readable(verb).includes(noun) ? readable(verb) : `${readable(verb)} ${noun}`;
  if (typeof detail !== "object" || detail === null || Array.isArray(detail)) return what;
  const said = Object.entries(detail).map(([name, value]) => `${readable(name)} ${shown(value)}`);
  return said.length > 0 ? `${what}: ${said.join(", ")}` : what;
}

const shown = (value: unknown): string =>
  typeof value === "string" ? readable(value) : JSON.stringify(value);

/** A moment in the clinic's zone, to the second. */
export function momentWords(iso: string, zone: string): string {
  return new Intl.DateTimeFormat("en-GB", {
    timeZone: zone,
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
    second: "2-digit",
  }).format(new Date(iso));
}

/** The same, without the day where that is today. */
export function lateWords(iso: string, zone: string, now = new Date()): string {
  const [day, time] = momentWords(iso, zone).split(", ");
  return momentWords(now.toISOString(), zone).startsWith(`${day},`)
    ? String(time)
    : `${day}, ${time}`;
}
