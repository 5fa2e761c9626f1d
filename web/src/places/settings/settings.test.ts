import { describe, expect, it } from "vitest";
import type { Catalogue } from "../../api/catalogue";
import { amendedName, amendedState, stateWords } from "../../state/domain/amended";
import { auditWords, momentWords } from "../../state/domain/audit";
import { furthestStep, reachedStep } from "../../state/screen/furthest_step";
import { errorRows } from "./error_figures";

describe("settings", () => {
  it("shows every error figure with its smallest real change and its source", () => {
    const measure = (code: string, error: object | null) => ({
      code,
      label: code,
      unit: "deg",
      error,
    });
    const figure = { sem: 2, threshold: 5, percent: null, source: "assumed" };
    const catalogue = {
      tests: [
        {
          code: "hip.bend",
          name: "Bend",
          measures: [measure("angle", figure), measure("none", null)],
          derived: [measure("gap", { ...figure, percent: "both", source: "Peeler 2007" })],
        },
      ],
    } as unknown as Catalogue;
    const rows = errorRows(catalogue);
    expect(rows.map((row) => [row.name, row.sem, row.mdc95, row.threshold, row.assumed])).toEqual([
      ["Bend, angle", "2°", "5.5°", "5°", true],
      ["Bend, gap", "2 % of the value", "5.5 % of the value", "5 % of the value", false],
    ]);
  });

  it("tells the audit in words, in the clinic's zone", () => {
    expect(auditWords({ verb: "sign", noun: "screen", detail: { revision: 7 } })).toBe(
      "sign screen: revision 7",
    );
    expect(auditWords({ verb: "list screens", noun: "screen", detail: null })).toBe("list screens");
    expect(momentWords("2026-12-31T22:30:05Z", "Europe/Helsinki")).toContain("1 Jan 2027");
  });

  it("says what changed, and that it is none where it is gone", () => {
    const catalogue = { flag_names: { "tightness.x": "X short" } } as unknown as Catalogue;
    const flag = { what: "flags", code: "tightness.x", side: "left", before: null, after: null };
    expect(amendedName(catalogue, { ...flag, cause: "rules" } as never)).toBe("X short");
    const action = {
      ...flag,
      what: "actions",
      code: "train.tightness_x",
      after: { urgency: "train" },
    };
    expect(amendedName(catalogue, action as never)).toBe("Action, X short");
    expect(amendedState(null)).toBe("none");
    expect(
      amendedState({
        strength: "likely",
        urgency: "recheck",
        from: "2026-09-16",
        to: "2026-09-19",
      }),
    ).toBe("likely, recheck, 16 Sept 2026 to 19 Sept 2026");
    expect(stateWords({ strength: "possible" })).toBe("possible");
  });

  it("remembers how far along a screen one has been, and never less", () => {
    reachedStep("a", 2);
    reachedStep("a", 0);
    expect([furthestStep("a"), furthestStep("b")]).toEqual([2, -1]);
  });
});
