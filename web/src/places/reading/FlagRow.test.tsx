import { describe, expect, it } from "vitest";
import type { Reading, Screen } from "../../api/screens";
import { ledgerRows, recordsOf } from "../../state/domain/ledger";
import { screenOf } from "../../testing/bench";
import { CATALOGUE, flagOf, readingOf } from "../../testing/readings";
import { show } from "../../testing/show";
import { FlagRow } from "./FlagRow";
import { ClearedRows, FollowsRows, HeldRows } from "./SlimRows";

const DRAWER = "ankle.anterior_drawer";
const entries = (["left", "right"] as const).map((side) => ({
  id: side,
  test: DRAWER,
  side,
  values: { laxity: side === "left" ? 2 : 0 },
}));
const screen = screenOf(entries);
const because = [{ at: "entries[0]", rule: "A3", says: "Moves clearly more." }];

const shared = (reading: Reading, of: Screen = screen) => ({
  reading,
  screen: of,
  catalogue: CATALOGUE,
  recorded: recordsOf(of.record, CATALOGUE),
  how: "mean" as const,
  made: [],
});

async function row(reading: Reading) {
  const parts = shared(reading);
  const [first] = ledgerRows(reading, screen.record, CATALOGUE).flagged;
  if (!first) throw new Error("there is no row");
  const shown = await show(<FlagRow {...parts} row={first} />);
  const lane = (side: "left" | "right") =>
    shown.container.querySelector(`.lane-${side}`)?.textContent ?? "";
  return { shown, lane };
}

describe("a finding in the ledger", () => {
  const flag = flagOf("instability.atfl", "left", { because, against: ["The tilt is firm."] });

  it("stands in the lane of its side, with its reason and what speaks against it", async () => {
    const { lane, shown } = await row(readingOf({ flags: [flag] }));
    expect(lane("left")).toContain("Moves clearly more.");
    expect(lane("left")).toContain("The tilt is firm.");
    expect(lane("right")).not.toContain("Moves clearly more.");
    const link = shown.getByRole("link", { name: "Moves clearly more." });
    await expect.element(link).toHaveAttribute("href", `/screens/s/bench/${DRAWER}`);
  });

  it("says of the other side what was recorded there, and never that it is well", async () => {
    const { lane } = await row(readingOf({ flags: [flag] }));
    expect(lane("right")).toMatch(/no flag|0/);
    expect(lane("right")).not.toMatch(/normal|fine|healthy/i);
  });

  it("says how urgent it is in words", async () => {
    const urgent = { ...flag, urgency: "same_day" };
    const { lane } = await row(readingOf({ flags: [urgent] }));
    expect(lane("left")).toContain("same day");
  });
});

describe("what is held or ruled down", () => {
  it("is said on its side, with the gate; the other is not held", async () => {
    const held = [{ test: DRAWER, side: "right", gate: "fracture_doubt" }];
    const shown = await show(<HeldRows {...shared(readingOf({ held }))} />);
    const lane = (side: string) => shown.container.querySelector(`.lane-${side}`)?.textContent;
    expect(lane("right")).toContain("held");
    expect(lane("left")).toBe("not held");
  });

  it("is said where it speaks against something, and open on the other side", async () => {
    const ruled_down = [{ code: "instability.atfl", side: "left", because }];
    const reading = readingOf({ ruled_down });
    const { cleared } = ledgerRows(reading, screen.record, CATALOGUE);
    const shown = await show(<ClearedRows {...shared(reading)} rows={cleared} />);
    const lane = (side: string) => shown.container.querySelector(`.lane-${side}`)?.textContent;
    expect(lane("left")).toContain("Moves clearly more.");
    expect(lane("right")).toBe("not ruled down");
  });
});

describe("what follows by arithmetic", () => {
  it("is one row a test, with what is not known said in its lane", async () => {
    const value = { test: DRAWER, unit: "N·m", right: null };
    const follows = [
      { ...value, code: "torque", label: "Torque", left: 44 },
      { ...value, code: "per_mass", label: "Torque per mass", unit: "N·m/kg", left: 0.594 },
    ];
    const shown = await show(<FollowsRows {...shared(readingOf({ follows }))} />);
    const lane = (side: string) => shown.container.querySelector(`.lane-${side}`)?.textContent;
    expect(shown.container.querySelectorAll("section")).toHaveLength(1);
    expect(lane("left")).toBe("44 N·m · 0.59 N·m/kg");
    expect(lane("right")).toBe("not known · not known");
  });

  it("is nothing where it was not kept back then", async () => {
    const shown = await show(<FollowsRows {...shared(readingOf({ follows: null }))} />);
    expect(shown.container.textContent).toBe("");
  });
});
