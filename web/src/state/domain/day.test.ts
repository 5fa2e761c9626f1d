import { describe, expect, it } from "vitest";
import type { Catalogue } from "../../api/catalogue";
import type { Day, DueAction, OpenScreen } from "../../api/day";
import {
  atPercent,
  BEFORE,
  bookedToday,
  cannotWait,
  daysBetween,
  doneWords,
  firstWords,
  foundWords,
  goesOn,
  near,
  plusDays,
  runningOut,
  SHOWN,
  stripDays,
  wordsAt,
} from "./day";

const TODAY = "2026-09-14";
const catalogue = { flag_names: { "instability.atfl": "ATFL laxity" } } as unknown as Catalogue;
type Standing = DueAction["standing"];
type Step = NonNullable<Standing["arranged"]>;

const step = (parts: Partial<Step>): Step => ({
  id: "step",
  on: null,
  until: null,
  at_time: null,
  whom: "",
  note: "",
  by: "K. Aalto",
  at: "2026-09-14T08:00:00Z",
  ...parts,
});

const due = (parts: Partial<DueAction>, standing: Partial<Standing> = {}): DueAction => ({
  screen: "screen",
  athlete: { id: "athlete", name: "Ilse Varga" },
  found: "2026-09-10",
  urgency: "recheck",
  start: "2026-09-12",
  end: "2026-09-16",
  says: null,
  standing: {
    action: "recheck.instability_atfl",
    side: "right",
    arranged: null,
    again: null,
    closed: null,
    left: null,
    ...standing,
  },
  ...parts,
});

const dayOf = (...actions: DueAction[]): Day => ({
  day: TODAY,
  open: [],
  open_total: 0,
  actions,
  older: 0,
  being_read: 0,
  unseen: { total: 0, athletes: [] },
});

const words = (action: DueAction): string | undefined =>
  runningOut(dayOf(action), catalogue)[0]?.words;

const refer = { urgency: "refer", start: null, says: "Signs of illness" } as const;

describe("days", () => {
  it("count whole days over a change of the clock and of the year", () => {
    expect(daysBetween("2026-10-24", "2026-10-26")).toBe(2);
    expect(daysBetween("2026-12-31", "2027-01-01")).toBe(1);
    expect(plusDays("2028-02-28", 1)).toBe("2028-02-29");
    expect(plusDays("2026-03-01", -1)).toBe("2026-02-28");
  });

  it("are named by their weekday while near, else by their date", () => {
    expect(near(1, TODAY)).toBe("tomorrow");
    expect(near(3, TODAY)).toBe("Thursday");
    expect(near(7, TODAY)).toBe("21 Sept 2026");
    expect(near(-3, TODAY)).toBe("11 Sept 2026");
  });
});

describe("what a row says", () => {
  it("of a second look: opening, open, its last day, past", () => {
    expect(words(due({ start: "2026-09-16", end: "2026-09-19" }))).toBe("opens Wednesday");
    expect(words(due({}))).toBe("open, 2 days left");
    expect(words(due({ end: TODAY }))).toBe("last day today");
    expect(words(due({ start: "2026-09-10", end: "2026-09-13" }))).toBe("past by 1 day");
  });

  it("of a referral: its last day, past it, or that none was named", () => {
    expect(words(due({ ...refer, end: "2026-09-17" }))).toBe("last day Thursday");
    expect(words(due({ ...refer, end: "2026-09-12" }))).toBe("past by 2 days");
    expect(words(due({ ...refer, end: null }))).toBe("no last day named");
  });

  it("of what is booked: today, later, or past without anybody saying how it went", () => {
    const on = (day: string) => ({ arranged: step({ on: day }) });
    expect(words(due({}, on(TODAY)))).toBe("booked today");
    expect(words(due({ ...refer, end: null }, on("2026-09-16")))).toBe("booked Wednesday");
    expect(words(due({}, on("2026-09-12")))).toBe("was booked for 12 Sept 2026");
    expect(words(due({ start: "2026-09-01", end: "2026-09-10" }, on("2026-09-20")))).toBe(
      "past by 4 days, booked",
    );
  });

  it("is due from its first day on, and once the day it is booked for has come", () => {
    const isDue = (action: DueAction) => runningOut(dayOf(action), catalogue)[0]?.due;
    const on = (day: string) => ({ arranged: step({ on: day }) });
    expect(isDue(due({ start: TODAY, end: "2026-09-19" }))).toBe(true);
    expect(isDue(due({ start: "2026-09-15", end: "2026-09-19" }))).toBe(false);
    expect(isDue(due({}, on(TODAY)))).toBe(true);
    expect(isDue(due({}, on("2026-09-15")))).toBe(false);
    expect(isDue(due({ ...refer, end: TODAY }))).toBe(true);
    expect(words(due({ ...refer, end: TODAY }))).toBe("last day today");
  });

  it("takes days of one's own before those of the reading", () => {
    const again = step({ on: "2026-09-20", until: "2026-09-24", note: "knee to wall again" });
    const [row] = runningOut(dayOf(due({ urgency: "train" }, { again })), catalogue);
    expect([row?.from, row?.to, row?.due]).toEqual([6, 10, false]);
  });
});

describe("a day", () => {
  const urgent = due({ urgency: "same_day", start: null, end: null });

  it("keeps what nobody has in hand in red, also where it was left with a reason", () => {
    const left = due({ urgency: "emergency" }, { left: step({ note: "went home" }) });
    const inHand = due({ urgency: "same_day" }, { arranged: step({ on: TODAY }) });
    const day = dayOf(urgent, left, inHand);
    expect(cannotWait(day)).toEqual([urgent, left]);
    expect(runningOut(day, catalogue).map((row) => row.action)).toEqual([inHand]);
    expect(firstWords(day, [])).toBe("Two things cannot wait.");
  });

  it("sorts by what runs out first, what has no last day at the end", () => {
    const [late, soon, never] = [
      due({ screen: "late", end: "2026-09-20" }),
      due({ screen: "soon", ...refer, end: "2026-09-15" }),
      due({ screen: "never", ...refer, end: null }),
    ];
    const rows = runningOut(dayOf(never, late, soon), catalogue);
    expect(rows.map((row) => row.action.screen)).toEqual(["soon", "late", "never"]);
  });

  it("shows once what several findings of a side ask for on the same days", () => {
    const other = due({ says: "Ligaments again." });
    const [row, ...more] = runningOut(dayOf(due({ says: "Ligaments again." }), other), catalogue);
    expect([row?.also, more]).toEqual([[other], []]);
    const left = due({ says: "Ligaments again." }, { side: "left" });
    expect(runningOut(dayOf(other, left), catalogue)).toHaveLength(2);
  });

  it("orders who is booked by the clock", () => {
    const at = (time: string | null) => due({}, { arranged: step({ on: TODAY, at_time: time }) });
    const [none, late, early] = [at(null), at("13:30"), at("10:15")];
    const tomorrow = due({}, { arranged: step({ on: "2026-09-15" }) });
    expect(bookedToday(dayOf(none, late, early, tomorrow))).toEqual([early, late, none]);
  });

  it("says what to do first, down to an empty day", () => {
    const booked = dayOf(due({}, { arranged: step({ on: TODAY }) }));
    expect(firstWords(booked, [])).toBe("Next: Ilse Varga.");
    const day = dayOf(due({}));
    expect(firstWords(day, runningOut(day, catalogue))).toContain("running out");
    expect(firstWords({ ...dayOf(), open_total: 2 }, [])).toContain("Screens are open");
    expect(firstWords(dayOf(), [])).toContain("Choose who comes");
  });

  it("says when something was found", () => {
    expect(foundWords(TODAY, TODAY)).toBe("Found today.");
    expect(foundWords("2026-09-13", TODAY)).toBe("Found yesterday.");
    expect(foundWords("2026-09-12", TODAY)).toBe("Found 12 Sept 2026, 2 days ago.");
  });
});

describe("an open screen", () => {
  const screen = (
    planned: number | null,
    done: number | null,
    open: number | null,
    unexamined: number | null = 0,
  ): OpenScreen => ({
    id: "screen",
    athlete: { id: "athlete", name: "Ilse Varga" },
    date: TODAY,
    purpose: "squad_screen",
    planned,
    done,
    open,
    unexamined,
    last_by: null,
    last_at: null,
  });

  it("goes on where it stopped", () => {
    expect(goesOn(screen(0, 0, 0))).toEqual({ step: "story", says: "Open" });
    expect(goesOn(screen(4, 0, 4))).toEqual({ step: "bench", says: "Begin" });
    expect(goesOn(screen(4, 2, 2))).toEqual({ step: "bench", says: "Go on" });
    expect(goesOn(screen(4, 3, 0))).toEqual({ step: "reading", says: "Read, sign" });
  });

  it("is never told as nothing while it is being read", () => {
    expect(doneWords(screen(null, null, null))).toBe("being read");
    expect(doneWords(screen(0, 0, 0))).toBe("nothing planned yet");
    expect(doneWords(screen(14, 9, 5))).toBe("9 of 14 begun");
  });

  it("says what nothing speaks about though every test was begun", () => {
    expect(doneWords(screen(4, 4, 0, 3))).toBe("4 of 4 begun, 3 not examined");
  });
});

describe("a strip", () => {
  it("has today in its place, the week's end marked, and ends at its edges", () => {
    const days = stripDays(TODAY);
    expect(days).toHaveLength(SHOWN);
    expect(days[BEFORE]).toMatchObject({ day: TODAY, letter: "M", number: 14, today: true });
    expect(days.filter((each) => each.free).map((each) => each.number)).toEqual([
      12, 13, 19, 20, 26, 27,
    ]);
    expect([atPercent(-30), atPercent(-BEFORE), atPercent(99)]).toEqual([0, 0, 100]);
  });

  it("keeps its words off what is drawn", () => {
    expect(wordsAt(40)).toEqual({ over: false, at: 41.5 });
    expect(wordsAt(95)).toEqual({ over: true, at: 1.5 });
    expect(wordsAt(0).at).toBeGreaterThan(atPercent(0));
  });
});
