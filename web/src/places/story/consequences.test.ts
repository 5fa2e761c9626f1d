import { describe, expect, it } from "vitest";
import type { Catalogue } from "../../api/catalogue";
import type { Reading } from "../../api/screens";
import { SinceLastAnswer } from "./consequences";

const catalogue = { flag_names: { a: "One", b: "Another" } } as unknown as Catalogue;

const reading = (...codes: string[]): Reading =>
  ({
    record: "r",
    flags: codes.map((code) => ({ code, side: "left", strength: "possible", urgency: null })),
    gates: [],
    actions: [],
    coverage: {},
  }) as unknown as Reading;

describe("what the last answer changed", () => {
  it("is nothing before the first answer, and stays said when the same story is read again", () => {
    const since = new SinceLastAnswer();
    expect(since.read(reading("a"), 0, catalogue)).toEqual([]);
    const said = since.read(reading("a", "b"), 1, catalogue);
    expect(said).toHaveLength(1);
    expect(since.read(reading("a", "b"), 1, catalogue)).toEqual(said);
  });

  it("gives way to the next answer, which may change nothing", () => {
    const since = new SinceLastAnswer();
    since.read(reading("a"), 0, catalogue);
    since.read(reading("a", "b"), 1, catalogue);
    expect(since.read(reading("a", "b"), 2, catalogue)).toEqual([]);
  });

  it("covers the answers whose own reading was overtaken", () => {
    const since = new SinceLastAnswer();
    since.read(reading(), 0, catalogue);
    expect(since.read(reading("a", "b"), 2, catalogue)).toHaveLength(2);
  });
});
