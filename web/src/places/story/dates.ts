// Days and minutes as they are told.

/** A calendar day some days before another, both as YYYY-MM-DD. */
export function daysBefore(day: string, days: number): string {
  const [year = 1970, month = 1, date = 1] = day.split("-").map(Number);
  const at = new Date(Date.UTC(year, month - 1, date - days));
  return at.toISOString().slice(0, 10);
}

/** A day as a date field gives it; undefined for anything else. */
export function readDay(text: string): string | undefined {
  const shaped = /^(19|20|21)\d\d-\d\d-\d\d$/.test(text);
  // A calendar without this day carries it into the next month.
  return shaped && daysBefore(text, 0) === text ? text : undefined;
}

const DAY_MINUTES = 1440;

export function readMinutes(text: string): number | undefined {
  const minutes = /^\d{1,4}$/.test(text.trim()) ? Number(text) : Number.NaN;
  return minutes <= DAY_MINUTES ? minutes : undefined;
}
