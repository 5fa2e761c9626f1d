import { describe, expect, it } from "vitest";
import { screenOf } from "../../testing/bench";
import { actionOf, CATALOGUE, readingOf } from "../../testing/readings";
import { show } from "../../testing/show";
import { UnreadDanger, UrgentBars } from "./UrgentBars";

const EMERGENCY = actionOf("emergency.danger_hip", "left", "emergency");
const SAME_DAY = actionOf("same_day.danger_hip", "right", "same_day");

const bars = (actions: object[], arrangements: object[] = []) => (
  <UrgentBars
    reading={readingOf({ actions })}
    screen={screenOf([], { arrangements })}
    catalogue={CATALOGUE}
    onChanged={() => {}}
  />
);

const step = (action: { code: string; side: string | null }, parts: object) => ({
  action: action.code,
  side: action.side,
  arranged: null,
  again: null,
  closed: null,
  left: null,
  ...parts,
});
const done = {
  id: "a",
  on: "2026-09-14",
  until: null,
  at_time: null,
  whom: "her doctor",
  note: "too far",
  by: "K.",
  at: "",
};

describe("what cannot wait", () => {
  it("is said with its side, what to do, and how many there are", async () => {
    const screen = await show(bars([EMERGENCY, SAME_DAY]));
    const [first, second] = screen.getByRole("alert").all();
    await expect
      .element(first as never)
      .toHaveTextContent(/Emergency 1 of 2.*left.*Stop and call the emergency number/);
    await expect
      .element(second as never)
      .toHaveTextContent(/Same day 2 of 2.*right.*seen by a doctor today/);
  });

  it("is nothing that can wait", async () => {
    const screen = await show(bars([actionOf("refer.tight_soleus", "left", "refer")]));
    expect(screen.getByRole("alert").elements()).toEqual([]);
  });

  it("goes when somebody has it in hand, on that side alone", async () => {
    const other = { ...EMERGENCY, side: "right" as const };
    const screen = await show(bars([EMERGENCY, other], [step(EMERGENCY, { arranged: done })]));
    await expect.element(screen.getByRole("alert")).toHaveTextContent("right");
  });

  it("stays where it was left with a reason, and says the reason", async () => {
    const screen = await show(bars([SAME_DAY], [step(SAME_DAY, { left: done })]));
    await expect.element(screen.getByRole("alert")).toHaveTextContent("too far");
  });

  it("is told before it is read, and says that it is not", async () => {
    const items = ["red_flags.breathless_or_chest_pain"];
    const screen = await show(<UnreadDanger items={items} catalogue={CATALOGUE} />);
    await expect.element(screen.getByRole("alert")).toHaveTextContent("Not read yet");
  });
});
