// What has changed since earlier screens: grouped by measure, said in a few words.
import type { Catalogue, Compared, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Reading } from "../../api/screens";
import { measureIn } from "../../state/domain/measures";
import { plain, unitOf, whole } from "../../state/domain/parse";
import { dayWords } from "../../state/domain/wording";

export type Change = Reading["changes"][number];

export interface ChangeRow {
  key: string;
  test: Test;
  measure: Compared;
  sides: Partial<Record<Side | "none", Change>>;
}

/** Rows of what changed beyond error, in the reading's order. A row keeps the other side's value. */
export function changedRows(changes: Change[], catalogue: Catalogue): ChangeRow[] {
  const rows = new Map<string, ChangeRow>();
  for (const change of changes) {
    const known = measureIn(catalogue, change.test, change.measure);
    if (!known) continue;
    const key = `${change.test} ${change.measure}`;
    const row = rows.get(key) ?? { key, ...known, sides: {} };
    row.sides[change.side ?? "none"] = change;
    rows.set(key, row);
  }
  return [...rows.values()].filter((row) =>
    Object.values(row.sides).some((change) => change.verdict === "changed"),
  );
}

/** "10° for the better since 2 Mar 2026, error 5.5°", or why it cannot be said. */
export function changeWords(change: Change, measure: Compared): string {
  const since = `since ${dayWords(change.baseline.date)}`;
  if (change.verdict === "not_comparable") return `${change.why ?? "Not compared."}`;
  if (change.verdict === "within_error") return `within error ${since}`;
  const error = `error ${plain(change.mdc95 ?? 0)}${unitOf(measure)}`;
  const by = `${whole(change.difference ?? 0)}${unitOf(measure)}`;
  if (change.worse === null) return `differs by ${by} ${since}, ${error}`;
  return `${by} for the ${change.worse ? "worse" : "better"} ${since}, ${error}`;
}

/** What to keep in mind when looking at a change. */
export function changeCautions(change: Change): string[] {
  if (change.verdict !== "changed") return [];
  const said = [];
  if (change.matters === false) said.push("Real, but small.");
  if (change.same_examiner === false) said.push("Another examiner then.");
  if (change.growing) said.push("Still growing.");
  return said;
}

/** What the rows leave out, in one sentence; null where nothing is left out. */
export function leftOutWords(changes: Change[]): string | null {
  const within = changes.filter((change) => change.verdict === "within_error").length;
  const apart = changes.filter((change) => change.verdict === "not_comparable");
  const parts = [];
  if (within > 0) parts.push(`${within} ${within === 1 ? "value" : "values"} within error.`);
  if (apart.length > 0) {
    const why = [...new Set(apart.map((change) => change.why).filter(Boolean))].join(" ");
    parts.push(`${apart.length} not compared: ${why}`);
  }
  return parts.length > 0 ? parts.join(" ") : null;
}
