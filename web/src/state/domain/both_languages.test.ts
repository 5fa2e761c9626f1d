// What the server's core works out and the browser too, from the very same cases.
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import type { Compared } from "../../api/catalogue";
import { fromMillimetres, type LengthUnit, toMillimetres } from "./length";
import { torque } from "./measures";
import { plain, whole } from "./parse";
import { ageOn, findingSide } from "./wording";

const cases = <T>(name: string): T[] =>
  JSON.parse(
    readFileSync(new URL(`../../../../tests/cases/${name}.json`, import.meta.url), "utf-8"),
  );

interface Torque {
  force: number | null;
  lever: number | null;
  torque: number | null;
}
interface Spoken {
  polarity: Compared["polarity"];
  left: number;
  right: number;
  side: "left" | "right" | null;
}

describe("both languages agree on", () => {
  it.each(cases<Torque>("torques"))("the torque of $force N at $lever mm", (item) => {
    expect(torque(item.force, item.lever)).toBe(item.torque);
  });

  it.each(cases<Spoken>("spoken_sides"))(
    "the side spoken of: $polarity, $left against $right",
    ({ polarity, left, right, side }) => {
      expect(findingSide({ polarity } as Compared, left - right)).toBe(side);
    },
  );

  it.each(cases<{ born: string | null; on: string; age: number | null }>("ages"))(
    "how old $born is on $on",
    ({ born, on, age }) => {
      expect(ageOn(born, on)).toBe(age);
    },
  );

  it.each(cases<{ typed: number; unit: LengthUnit; mm: number }>("lengths"))(
    "$typed $unit in millimetres",
    ({ typed, unit, mm }) => {
      expect(toMillimetres(typed, unit)).toBe(mm);
      expect(fromMillimetres(mm, unit)).toBe(typed);
    },
  );

  it.each(cases<{ value: number; said: string; whole: string }>("said_numbers"))(
    "how $value is said",
    (item) => {
      expect(plain(item.value)).toBe(item.said);
      expect(whole(item.value)).toBe(item.whole);
    },
  );
});
