import { describe, expect, it } from "vitest";
import type { Preview } from "../../api/screens";
import { draftFaults } from "./bench_faults";

const found = (...faults: [string, string][]): Preview =>
  ({ faults: faults.map(([path, problem]) => ({ path, problem })) }) as unknown as Preview;

describe("what a preview refuses", () => {
  const drafts = [{ key: "left" }, { key: "right" }];

  it("stands at the field that was typed, past what waits before it", () => {
    const faults = draftFaults(new Map(), drafts, found(["answers[3].value", "too much"]), 2);
    expect([...faults]).toEqual([["right", "too much"]]);
  });

  it("is no fault of a field that it does not name", () => {
    const faults = draftFaults(new Map(), drafts, found(["answers[0].value", "sent before"]), 2);
    expect([...faults]).toEqual([]);
    expect([...draftFaults(new Map(), drafts, found(["answers[12].value", "x"]), 1)]).toEqual([]);
  });

  it("goes once it can be read, and stays where nothing new was typed", () => {
    const known = new Map([
      ["left", "old"],
      ["elsewhere", "own"],
    ]);
    expect([...draftFaults(known, drafts, found(), 0)]).toEqual([["elsewhere", "own"]]);
  });
});
