// A fact of the story in one line, as the last visit's are offered and the history is listed.
import type { Catalogue } from "../../api/catalogue";
import { type Json, type Place, placeOf } from "../domain/fields";
import { dayWords, purposeName, questionWords, readable } from "../domain/wording";
import type { HistoryLine } from "./story";

export const siteName = (catalogue: Catalogue, code: string): string =>
  catalogue.sites.find((site) => site.code === code)?.label ?? readable(code);

/** "Sprain of the ankle, right, 3 times, 20 weeks ago". */
export function historyWords(catalogue: Catalogue, line: HistoryLine["line"]): string {
  const { words } = catalogue.story;
  const kinds: Record<string, string> = words.history;
  const regions: Record<string, string> = words.regions;
  const { kind, region, side, count, weeks_ago: weeks, date } = line;
  const count_ = typeof count === "number" && count > 1 ? `${count} times` : "";
  const when =
    typeof weeks === "number"
      ? `${weeks} ${weeks === 1 ? "week" : "weeks"} ago`
      : typeof date === "string"
        ? dayWords(date)
        : "";
  const sides = side === "both" ? "both sides" : String(side ?? "side not said");
  const what = `${kinds[String(kind)] ?? kind}, ${(regions[String(region)] ?? "").toLowerCase()}`;
  return [what, sides, count_, when].filter(Boolean).join(", ");
}

const PLAIN: Record<string, string> = {
  "complaint.region": "Region",
  "complaint.side": "Side",
  "onset.kind": "Began",
  "onset.date": "Since",
  "onset.about": "The day is a guess",
  "onset.mechanism": "How",
  "pain.now": "Pain now",
  "pain.worst": "Pain at its worst",
  "pain.at_onset": "Pain when it began",
  morning_stiffness_min: "Stiff in the morning, minutes",
  "history.none": "No earlier injury",
  "consent.given": "Consent",
  "consent.guardian": "Guardian",
  "consent.chaperone": "Chaperone",
};

/** Question and answer; null for what is said together with something else. */
export function factWords(catalogue: Catalogue, key: string, value: Json): string | null {
  const place = placeOf(key);
  if (place.field === "history") return historyWords(catalogue, value as HistoryLine["line"]);
  if (place.key) return placeWords(catalogue, place, value);
  if (place.field === "purpose") return `Purpose: ${purposeName(String(value))}`;
  const asked = PLAIN[place.field] ?? questionWords(catalogue, place.field);
  return `${asked} ${valueWords(catalogue, place.field, value)}`.trim();
}

function placeWords(catalogue: Catalogue, { key, side, field }: Place, value: Json): string | null {
  const where = `${siteName(catalogue, key)}${side ? `, ${side}` : ""}`;
  if (field === "here") return `Pain: ${where}`;
  return field === "now" ? `${where}: now ${value}` : `${where}: worst ${value}`;
}

function valueWords(catalogue: Catalogue, field: string, value: Json): string {
  if (field === "history.none" || field === "onset.about") return "";
  if (value === true) return "yes";
  if (value === false) return "no";
  const { kinds, mechanisms, regions } = catalogue.story.words;
  const spoken: Record<string, Record<string, string>> = {
    "onset.kind": kinds,
    "onset.mechanism": mechanisms,
    "complaint.region": regions,
  };
  if (field === "onset.date") return dayWords(String(value));
  return spoken[field]?.[String(value)]?.toLowerCase() ?? String(value);
}
