import { describe, expect, it } from "vitest";
import type { Measure, Test } from "../../api/catalogue";
import type { Difference, Screen } from "../../api/screens";
import { fieldsOf, placeKey, placeOf, withChanges } from "../../state/domain/fields";
import { benchKey } from "../../state/domain/keys";
import {
  keysOf,
  questionAfter,
  questionsOf,
  rowsOf,
  stepsFor,
  twinOf,
} from "../../state/domain/questions";
import {
  actionWords,
  dayWords,
  differenceWords,
  dueWords,
  findingSide,
  questionWords,
  toDo,
  today,
} from "../../state/domain/wording";
import { backspace, isBelow, nextTrial, press, setBelow } from "./pad";

const measure = (code: string, more: Partial<Measure> = {}) => ({ code, ...more }) as Measure;

const test = {
  code: "made.up",
  sides: "each",
  measures: [measure("a"), measure("b"), measure("b_other", { instead_of: "b" })],
  steps: [
    { code: "one", measures: ["a"], school: null },
    { code: "two", measures: ["b", "b_other"], school: { key: "thomas", among: ["degrees"] } },
  ],
} as unknown as Test;

describe("the order of questions", () => {
  const steps = stepsFor(test, { thomas: "degrees" });
  const questions = questionsOf(
    test,
    steps,
    new Map(),
    "right",
    keysOf(test, () => false),
  );

  it("asks the first side first, then the other, then on", () => {
    expect(questions.map((q) => `${q.measure} ${q.side}`)).toEqual([
      "a right",
      "a left",
      "b right",
      "b left",
    ]);
    const [first, second] = questions;
    expect(first && questionAfter(questions, first)).toEqual(second);
    const last = questions.at(-1);
    expect(last && questionAfter(questions, last)).toBeNull();
  });

  it("asks each bone, toe or space in turn, and what nobody named only where something stands", () => {
    const keyed = {
      code: "keyed",
      sides: "each",
      key: "toe",
      measures: [
        measure("toe", {
          kind: "grade",
          plausible: [1, 2],
          allowed: [],
          grades: [],
          points_for: [],
        }),
        measure("a"),
      ],
      steps: [{ code: "one", measures: ["toe", "a"], school: null }],
    } as unknown as Test;
    expect(keysOf(keyed, () => false).map(({ key }) => key)).toEqual(["1", "2"]);
    expect(keysOf(keyed, (key) => key === "").map(({ key }) => key)).toEqual(["1", "2", ""]);
    const asked = questionsOf(
      keyed,
      keyed.steps,
      new Map(),
      "left",
      keysOf(keyed, () => false),
    );
    expect(asked.map((q) => `${q.key} ${q.measure} ${q.side}`)).toEqual([
      "1 a left",
      "1 a right",
      "2 a left",
      "2 a right",
    ]);
    const [first, other] = asked;
    expect(first && questionAfter(asked, first)).toEqual(other);
  });

  it("shows a step only to the schools it is for", () => {
    expect(stepsFor(test, { thomas: "pass_fail" }).map((step) => step.code)).toEqual(["one"]);
  });

  it("puts the other way of reading in the same row", () => {
    const [, two] = steps;
    if (!two) throw new Error("no step");
    expect(rowsOf(test, two, new Map()).map((m) => m.code)).toEqual(["b"]);
    expect(rowsOf(test, two, new Map([["b", "b_other"]])).map((m) => m.code)).toEqual(["b_other"]);
    expect(twinOf(test, measure("b"))?.code).toBe("b_other");
    expect(twinOf(test, measure("b_other", { instead_of: "b" }))?.code).toBe("b");
    expect(twinOf(test, measure("a"))).toBeNull();
  });
});

describe("fields of a record", () => {
  const record = {
    entries: [
      { test: "t", side: "left", values: { a: 1 }, seen: ["x"], by: "B." },
      { test: "t", values: { a: { right: 2 } } },
    ],
  } as unknown as Screen["record"];

  it("stand by test, side and field", () => {
    const fields = fieldsOf(record, new Map());
    expect(fields.get("t|left||values.a")?.value).toBe(1);
    expect(fields.get("t|right||values.a")?.value).toBe(2);
    expect(fields.get("t|left||seen")).toEqual({ value: ["x"], by: "B.", at: null });
  });

  it("are told apart by the key, and an empty list is an answer", () => {
    const entries = [
      { test: "t", side: "left", values: { bone: "fibula", tender: [] } },
      { test: "t", side: "left", values: { bone: "tibia", tender: ["x"] } },
      { test: "toe", side: "left", values: { toe: 1 } },
    ];
    const keys = new Map([
      ["t", "bone"],
      ["toe", "toe"],
    ]);
    const fields = fieldsOf({ entries } as unknown as Screen["record"], keys);
    expect(fields.get("t|left|fibula|values.tender")?.value).toEqual([]);
    expect(fields.get("t|left|tibia|values.tender")?.value).toEqual(["x"]);
    expect(fields.get("toe|left|1|values.toe")?.value).toBe(1);
    expect(placeOf("t|left|values.a")).toEqual({
      test: "t",
      side: "left",
      key: "",
      field: "values.a",
    });
  });

  it("take changes, and null clears", () => {
    const place = { test: "t", side: "left", key: "", field: "values.a" } as const;
    const change = { ...place, id: "i", revision: 1, by: null, from_file: false, at: null };
    const fields = withChanges(fieldsOf(record, new Map()), [{ ...change, value: null }]);
    expect(fields.has(placeKey(place))).toBe(false);
  });
});

describe("the number pad", () => {
  it("works on the trial in hand", () => {
    expect(press("8 1", "2")).toBe("8 12");
    expect(press("1.5", ".")).toBe("1.5");
    expect(nextTrial("8")).toBe("8 ");
    expect(nextTrial("8 ")).toBe("8 ");
    expect(nextTrial("")).toBe("");
    expect(backspace("8 ")).toBe("8");
    expect(setBelow("8 4", true)).toBe("8 −4");
    expect(setBelow("8 −4", false)).toBe("8 4");
    expect(isBelow("−8 4")).toBe(false);
    expect(isBelow("8 -4")).toBe(true);
  });
});

describe("keys", () => {
  const pressed = (key: string, more = {}) =>
    benchKey({ key, altKey: false, ctrlKey: false, metaKey: false, ...more });

  it("gives no bare letter, digit or arrow a meaning", () => {
    for (const key of [
      ..."abcdefghijklmnopqrstuvwxyz0123456789",
      "ArrowLeft",
      "Home",
      " ",
      "Tab",
    ]) {
      expect(pressed(key)).toBeNull();
    }
    expect(pressed("z", { ctrlKey: true })).toBeNull();
  });

  it("knows its few", () => {
    expect(pressed("Enter")).toBe("accept");
    expect(pressed("z", { altKey: true })).toBe("undo");
    expect(pressed("PageDown", { altKey: true })).toBe("next-stop");
    expect(pressed("PageDown")).toBe("next-step");
  });
});

describe("words", () => {
  const words = { finding: "tighter" } as Measure["words"];
  const tight = measure("a", { polarity: "higher", unit: "deg", words });
  const bends = measure("a", {
    polarity: "lower",
    unit: "deg",
    words: { ...words, finding: "bends less" },
  });
  const found = (difference: number, verdict: Difference["verdict"]) =>
    ({ difference, verdict, mdc95: 5.54 }) as Difference;

  it("say the side with the finding by polarity", () => {
    expect(findingSide(tight, 12)).toBe("left");
    expect(findingSide(tight, -12)).toBe("right");
    expect(findingSide(bends, 12)).toBe("right");
    expect(findingSide(bends, 0)).toBeNull();
  });

  it("say differences in whole degrees, or within error", () => {
    expect(differenceWords(tight, found(12.33, "real_matters"))).toBe("L tighter by 12°");
    expect(differenceWords(bends, found(20.2, "real_matters"))).toBe("R bends less by 20°");
    expect(differenceWords(tight, found(3, "within_error"))).toBe("within error");
  });

  it("dates a screen by the clinic's day, not the device's", () => {
    const late = new Date("2026-12-31T22:30:00Z");
    expect(today("Europe/Helsinki", late)).toBe("2027-01-01");
    expect(today("UTC", late)).toBe("2026-12-31");
    expect(today("America/New_York", new Date("2026-03-01T03:00:00Z"))).toBe("2026-02-28");
    expect(dayWords("2026-09-14")).toBe("14 Sept 2026");
  });
});

describe("urgent actions", () => {
  const catalogue = {
    tests: [],
    sites: [],
    flag_names: { "vascular.deep_vein_thrombosis": "Clot in doubt" },
    gates: {},
    openings: {},
    retakes: {},
    criteria: {},
    questions: { "onset.kind": "Did it begin suddenly or gradually?" },
    story: { words: { regions: {}, kinds: {}, mechanisms: {}, history: {} }, topic: [] },
  };
  const action = (code: string, urgency: "emergency" | "recheck") => ({
    code,
    urgency,
    side: null,
    because: [],
    from: null,
    to: null,
  });

  it("say the flag by its name and what to do", () => {
    const found = action("emergency.vascular_deep_vein_thrombosis", "emergency");
    expect(actionWords(found, catalogue)).toBe("Clot in doubt");
    expect(toDo("emergency")).toContain("emergency number");
    expect(toDo("refer")).toBe("");
  });

  it("name the days they are due by", () => {
    const due = { from: null, to: "2026-09-28" };
    expect(dueWords(due)).toBe("By 28 Sept 2026. ");
    expect(dueWords({ ...due, from: "2026-09-21" })).toBe("21 Sept 2026 to 28 Sept 2026. ");
    expect(dueWords({ from: null, to: null })).toBe("");
  });

  it("ask what is missing in words that can be read out", () => {
    expect(questionWords(catalogue, "onset.kind")).toContain("suddenly");
    expect(questionWords(catalogue, "symptoms.new_one")).toBe("New one");
  });

  it("stay readable without a name", () => {
    expect(actionWords(action("recheck.instability_new", "recheck"), catalogue)).toBe(
      "instability new",
    );
  });
});
