// Silence is not health: what nobody looked at, asked or tested is said by name.
import { describe, expect, it } from "vitest";
import type { Reading } from "../../api/screens";
import { recordsOf } from "../../state/domain/ledger";
import { screenOf } from "../../testing/bench";
import { CATALOGUE, readingOf } from "../../testing/readings";
import { show } from "../../testing/show";
import { Criteria } from "./Criteria";
import { NotExaminedRow } from "./NotExaminedRow";

const screen = screenOf();
const parts = (reading: Reading, of = screen) => ({
  reading,
  screen: of,
  catalogue: CATALOGUE,
  recorded: recordsOf(of.record, CATALOGUE),
  how: "mean" as const,
  made: [],
});

const covered = (unexamined: object[] | null, open: string[] = []) =>
  readingOf({ coverage: { planned: 1, done: 0, declined: 0, open, unexamined } });

const missing = (side: "left" | "right" | null, parts_: object = {}) => ({
  structure: "atfl",
  name: "Outer ankle ligaments",
  side,
  why: "not_recorded",
  tests: ["ankle.anterior_drawer"],
  ...parts_,
});

const lane = (container: HTMLElement, side: string) =>
  container.querySelector(`.lane-${side}`)?.textContent ?? "";

describe("what was not examined", () => {
  it("stands in its own lane by name, with the way there", async () => {
    const shown = await show(<NotExaminedRow {...parts(covered([missing("left")]))} />);
    expect(lane(shown.container, "left")).toContain("Outer ankle ligaments");
    expect(lane(shown.container, "right")).toContain("nothing else called for");
    const link = shown.getByRole("link", { name: "Anterior drawer", exact: false }).first();
    await expect.element(link).toHaveAttribute("href", "/screens/s/bench/ankle.anterior_drawer");
  });

  it("says why it was not, where it was held or declined, and offers no way there", async () => {
    const declined = missing("left", { why: "declined" });
    const shown = await show(<NotExaminedRow {...parts(covered([declined]))} />);
    expect(lane(shown.container, "left")).toMatch(/Outer ankle ligaments .*declined|not done/);
    expect(shown.getByRole("link").elements()).toEqual([]);
  });

  it("is not nothing where it was not kept back then", async () => {
    const shown = await show(<NotExaminedRow {...parts(covered(null))} />);
    expect(lane(shown.container, "left")).toContain("not kept back then");
    expect(lane(shown.container, "right")).toContain("not kept back then");
  });

  it("names a question that nobody asked", async () => {
    const ask = [
      {
        item: "red_flags.breathless_or_chest_pain",
        why: "A clot may be life-threatening.",
        urgent: true,
      },
    ];
    const shown = await show(
      <NotExaminedRow {...parts(readingOf({ ...covered([missing("left")]), ask }))} />,
    );
    await expect
      .element(shown.getByText("A clot may be life-threatening.", { exact: false }))
      .toBeVisible();
  });

  it("leads on to what was planned and is still to be done", async () => {
    const shown = await show(
      <NotExaminedRow {...parts(covered([missing("left")], ["hip.fadir"]))} />,
    );
    const next = shown.getByRole("link", { name: /^Next/ });
    await expect.element(next).toHaveAttribute("href", "/screens/s/bench/hip.fadir");
  });
});

describe("the criteria of a return", () => {
  it("are each met, not met or not tested, and nobody adds them up", async () => {
    const criteria = [
      { criterion: "hop", state: "met", at: null },
      { criterion: "lunge", state: "not_met", at: null },
      { criterion: "heel_rise", state: "not_tested", at: null },
    ];
    const shown = await show(<Criteria {...parts(readingOf({ criteria }))} />);
    const items = shown.getByRole("listitem").all();
    expect(items.map((item) => item.element().getAttribute("data-state"))).toEqual([
      "met",
      "not_met",
      "not_tested",
    ]);
    expect(shown.container.textContent).not.toMatch(/\d+ of \d+|ready$/);
    await expect.element(shown.getByText("you decide", { exact: false })).toBeVisible();
  });
});
