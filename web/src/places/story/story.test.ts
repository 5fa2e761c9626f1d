import { describe, expect, it } from "vitest";
import type { Catalogue } from "../../api/catalogue";
import type { Fact, Reading } from "../../api/screens";
import { unarranged } from "../../state/domain/urgent";
import { purposeFor } from "../../state/domain/wording";
import {
  type Facts,
  factsOf,
  historyLines,
  nothingHurts,
  partAsking,
  questionsAbout,
  sorePlaces,
  stillOpen,
  toldOf,
} from "../../state/screen/story";
import { factWords } from "../../state/screen/story_words";
import { dangerUnread } from "../../state/screen/unread_danger";
import { consequences } from "./consequences";
import { daysBefore, readDay, readMinutes } from "./dates";
import { EMPTY_LINE, lineFrom, readLine } from "./history_form";
import { offeredFrom } from "./last_visit";

const facts = (told: Record<string, unknown>): Facts =>
  new Map(Object.entries(told).map(([place, value]) => [`story|${place}`, value]));

const catalogue = {
  sites: [
    { code: "elbow", label: "Elbow", region: "leg" },
    { code: "wrist", label: "Wrist", region: "foot" },
  ],
  flag_names: { "made.up": "Made up" },
  gates: { shut_gate: "Shut for a reason." },
  questions: { "symptoms.hums": "Does it hum?" },
  story: {
    words: {
      regions: { leg: "Lower leg" },
      kinds: { sudden: "Suddenly" },
      mechanisms: { landing: "Landing" },
      history: { sprain: "Sprain" },
    },
    topic: [
      { about: "danger", asks: ["red_flags.a", "red_flags.b"], regions: [], sites: [], kinds: [] },
      { about: "danger", asks: ["red_flags.c"], regions: [], sites: [], kinds: ["sudden", "open"] },
      { about: "symptoms", asks: ["symptoms.hums"], regions: ["leg"], sites: [], kinds: [] },
      { about: "symptoms", asks: ["symptoms.rings"], regions: [], sites: ["wrist"], kinds: [] },
    ],
  },
} as unknown as Catalogue;

describe("what was told", () => {
  it("takes what waits over what stands, and what was taken back out of it", () => {
    const standing = (value: unknown) => ({ value, by: null, at: null });
    const found = factsOf({
      fields: new Map([
        ["story|||load_change", standing(true)],
        ["story|||onset.kind", standing("gradual")],
        ["made.up|left||values.reach", standing(5)],
      ]),
      waiting: new Map<string, unknown>([
        ["story|||onset.kind", null],
        ["story|||symptoms.hums", false],
      ]),
    });
    expect([...found]).toEqual([
      ["story|||load_change", true],
      ["story|||symptoms.hums", false],
    ]);
  });

  it("makes a place of whatever is told of it, once", () => {
    const told = facts({
      "left|elbow|worst": 7,
      "left|elbow|here": true,
      "|wrist|here": true,
      "|elbow|here": true,
    });
    expect(sorePlaces(told)).toEqual([
      { site: "elbow", side: "left", now: null, worst: 7 },
      { site: "wrist", side: null, now: null, worst: null },
    ]);
  });

  it("says nothing hurts only where somebody said so and no place stands", () => {
    expect(nothingHurts(facts({}))).toBe(false);
    expect(nothingHurts(facts({ "||complaint.region": "none" }))).toBe(true);
    const both = { "||complaint.region": "none", "left|elbow|here": true };
    expect(nothingHurts(facts(both))).toBe(false);
  });

  it("lists the history by its own keys", () => {
    const line = { kind: "sprain", region: "leg" };
    expect(historyLines(facts({ "|a1|history": line }))).toEqual([{ key: "a1", line }]);
  });
});

describe("which questions the story makes relevant", () => {
  const asked = (about: "danger" | "symptoms", told: Facts, reading: string[] = []) =>
    questionsAbout(about, catalogue.story, toldOf(told, catalogue), told, reading);

  it("goes by region, by site and by how it began", () => {
    expect(asked("symptoms", facts({}))).toEqual([]);
    expect(asked("symptoms", facts({ "left|elbow|here": true }))).toEqual(["symptoms.hums"]);
    expect(asked("symptoms", facts({ "left|wrist|here": true }))).toEqual(["symptoms.rings"]);
    expect(asked("danger", facts({}))).toContain("red_flags.c");
    expect(asked("danger", facts({ "||onset.kind": "gradual" }))).not.toContain("red_flags.c");
    expect(asked("danger", facts({ "||onset.mechanism": "landing" }))).toContain("red_flags.c");
  });

  it("puts what the reading asks for first and keeps in sight what was answered", () => {
    const told = facts({ "||onset.kind": "gradual", "||red_flags.c": true });
    expect(asked("danger", told, ["red_flags.b", "symptoms.hums"])).toEqual([
      "red_flags.b",
      "red_flags.a",
      "red_flags.c",
    ]);
  });

  it("leaves open what nobody answered: a no is an answer", () => {
    const told = facts({ "||red_flags.a": false });
    expect(stillOpen(["red_flags.a", "red_flags.b"], told)).toEqual(["red_flags.b"]);
  });

  it("knows which part asks what a reading asks for", () => {
    expect(
      ["complaint.side", "onset.kind", "load_change", "birth_date", "symptoms.x"].map(partAsking),
    ).toEqual(["where", "when", "when", "before", "when"]);
    expect(partAsking("red_flags.a")).toBeNull();
  });

  it("names the purpose of what hurts where the screen has another's", () => {
    expect(purposeFor(new Set(["ankle"]), "hip_complaint")).toBe("ankle_injury");
    expect(purposeFor(new Set(["ankle", "hip"]), "hip_complaint")).toBeNull();
    expect(purposeFor(new Set(["ankle"]), "follow_up")).toBeNull();
    expect(purposeFor(new Set(), "hip_complaint")).toBeNull();
  });
});

describe("what an answer changes", () => {
  const reading = (parts: object): Reading =>
    ({ record: "r", flags: [], shut: [], coverage: {}, ...parts }) as unknown as Reading;
  const flag = (urgency: string, side: string | null = "left") => ({
    code: "made.up",
    side,
    strength: "possible",
    urgency,
  });

  it("says what is urgent first, then what is held, then the rest, and what is no more", () => {
    const before = reading({ flags: [flag("train", "right")] });
    const after = reading({
      flags: [flag("emergency", null)],
      shut: [{ gate: "shut_gate", side: "left", tests: [] }],
      coverage: {
        unexamined: [{ structure: "s", name: "Something", side: "left", why: "", tests: [] }],
      },
    });
    const found = consequences(before, after, catalogue);
    expect(found.map(({ weight }) => weight)).toEqual(["urgent", "held", "plain", "plain"]);
    expect(found[0]?.says).toContain("Stop and call the emergency number");
    expect(found[3]).toEqual({
      side: "right",
      weight: "plain",
      says: "Made up, possible: no more.",
    });
  });

  it("says nothing where nothing changed, or where it is another screen", () => {
    const same = reading({ flags: [flag("train")] });
    expect(consequences(same, reading({ flags: [flag("train")] }), catalogue)).toEqual([]);
    expect(consequences(null, same, catalogue)).toEqual([]);
    expect(consequences(reading({ record: "other" }), same, catalogue)).toEqual([]);
  });

  it("keeps danger in sight until a reading has taken it in", () => {
    const told = facts({ "||red_flags.a": true, "||red_flags.b": false });
    expect(dangerUnread(told, ["red_flags.a", "red_flags.b"], false)).toEqual(["red_flags.a"]);
    expect(dangerUnread(told, ["red_flags.a"], true)).toEqual([]);
  });

  it("shows an urgent action until it is arranged on its own side", () => {
    const action = { code: "same_day.x", side: "left", urgency: "same_day" };
    const read = reading({ actions: [action, { ...action, urgency: "train" }] });
    const arranged = (side: string) => ({
      arrangements: [{ action: "same_day.x", side, arranged: { on: "2026-09-14" } }],
    });
    expect(unarranged(read, arranged("right") as never)).toHaveLength(1);
    expect(unarranged(read, arranged("left") as never)).toHaveLength(0);
  });
});

describe("what last visit said", () => {
  const fact = (field: string, value: unknown, side: string | null = null, key = ""): Fact =>
    ({ test: "story", side, key, field, value, by: null, at: null }) as Fact;

  it("is offered line by line, without how much it hurt and without its noes", () => {
    const last = [
      fact("here", true, "left", "elbow"),
      fact("now", 5, "left", "elbow"),
      fact("symptoms.hums", false),
      fact("symptoms.rings", true),
      fact("red_flags.a", false),
      fact("consent.given", true),
      fact("history", { kind: "sprain", region: "leg" }, null, "a1"),
      { ...fact("order", ["x"]), test: "route" },
    ];
    const fields = (part: "where" | "when" | "danger" | "before", told: Facts = facts({})) =>
      offeredFrom(last, told, part).map(({ field }) => field);
    expect(fields("where")).toEqual(["here"]);
    expect(fields("when")).toEqual(["symptoms.rings"]);
    expect(fields("danger")).toEqual([]);
    expect(fields("before")).toEqual(["history"]);
    expect(fields("when", facts({ "||symptoms.rings": false }))).toEqual([]);
  });

  it("reads as a sentence", () => {
    const says = (key: string, value: unknown) => factWords(catalogue, key, value);
    expect(says("story|left|elbow|here", true)).toBe("Pain: Elbow, left");
    expect(says("story|||symptoms.hums", true)).toBe("Does it hum? yes");
    expect(says("story|||onset.mechanism", "landing")).toBe("How landing");
    const line = { kind: "sprain", region: "leg", side: "left", count: 2, weeks_ago: 1 };
    expect(says("story||a1|history", line)).toBe("Sprain, lower leg, left, 2 times, 1 week ago");
    expect(says("story||a1|history", { kind: "sprain", region: "leg" })).toContain("side not said");
  });
});

describe("what is typed", () => {
  it("is a day, or nothing", () => {
    expect(daysBefore("2026-03-01", 2)).toBe("2026-02-27");
    expect(daysBefore("2026-01-01", 1)).toBe("2025-12-31");
    expect(readDay("2026-02-30")).toBeUndefined();
    expect(readDay("0002-01-01")).toBeUndefined();
    expect(readDay("2026-13-01")).toBeUndefined();
    expect(readDay("2026-01-31")).toBe("2026-01-31");
  });

  it("is whole minutes of a day", () => {
    expect(readMinutes("90")).toBe(90);
    for (const wrong of ["", "1441", "1.5", "-3", "ten"])
      expect(readMinutes(wrong)).toBeUndefined();
  });

  it("is a line of history once it says what and of what", () => {
    const line = { ...EMPTY_LINE, kind: "sprain", region: "leg" };
    expect(lineFrom(line)).toEqual({ kind: "sprain", region: "leg" });
    expect(lineFrom({ ...line, side: "left", weeks: "30", count: "2" })).toEqual({
      kind: "sprain",
      region: "leg",
      side: "left",
      weeks_ago: 30,
      count: 2,
    });
    for (const lacking of [
      EMPTY_LINE,
      { ...line, region: "" },
      { ...line, weeks: "soon" },
      { ...line, weeks: "6001" },
      { ...line, count: "0" },
      { ...line, count: "101" },
    ]) {
      expect(typeof lineFrom(lacking)).toBe("string");
    }
    expect(readLine("{broken")).toEqual(EMPTY_LINE);
    expect(readLine(JSON.stringify({ kind: "sprain" })).kind).toBe("sprain");
  });
});
