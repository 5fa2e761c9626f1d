// What is told: open is not no, one tap says what it names, and a second one leaves it open.
import { describe, expect, it } from "vitest";
import { useStore } from "../../components/base/useStore";
import type { Bench } from "../../state/screen/bench";
import { factAt, factsOf } from "../../state/screen/story";
import { benchOf } from "../../testing/bench";
import { CATALOGUE, readingOf } from "../../testing/readings";
import { show } from "../../testing/show";
import { Questions } from "./Questions";
import { Scale } from "./Scale";

const BREATH = "red_flags.breathless_or_chest_pain";
const ITEMS = [BREATH, "red_flags.fever", "confounders.intoxication"];

function Told({ bench, ask = [] }: { bench: Bench; ask?: object[] }) {
  const facts = factsOf(useStore(bench.state));
  return (
    <Questions
      bench={bench}
      catalogue={CATALOGUE}
      facts={facts}
      reading={readingOf({ ask })}
      title="Danger"
      items={ITEMS}
      none="No to the danger left open"
    />
  );
}

const held = (bench: Bench) => ITEMS.map((item) => factAt(factsOf(bench.state.getState()), item));

describe("questions about danger", () => {
  it("are open until they are answered, and open is counted", async () => {
    const { bench } = benchOf();
    const screen = await show(<Told bench={bench} />);
    await expect.element(screen.getByText("3 open")).toBeVisible();
    expect(held(bench)).toEqual([undefined, undefined, undefined]);
    const breath = screen.getByRole("group").nth(0);
    await breath.getByRole("button", { name: "Yes" }).click();
    await expect.element(screen.getByText("2 open")).toBeVisible();
    expect(held(bench)).toEqual([true, undefined, undefined]);
    await breath.getByRole("button", { name: "Yes" }).click();
    await expect.element(screen.getByText("3 open")).toBeVisible();
    expect(held(bench)).toEqual([undefined, undefined, undefined]);
  });

  it("take a no for those left open alone: a yes stays a yes", async () => {
    const { bench } = benchOf();
    const screen = await show(<Told bench={bench} />);
    await screen.getByRole("group").nth(1).getByRole("button", { name: "Yes" }).click();
    await screen.getByRole("button", { name: "No to the danger left open" }).click();
    expect(held(bench)).toEqual([false, true, false]);
    await expect.element(screen.getByText("all asked")).toBeVisible();
  });

  it("say why an answer is asked for, until it is there", async () => {
    const { bench } = benchOf();
    const ask = [{ item: BREATH, why: "A clot may be life-threatening.", urgent: true }];
    const screen = await show(<Told bench={bench} ask={ask} />);
    await expect.element(screen.getByText("A clot may be life-threatening.")).toBeVisible();
    await screen.getByRole("group").nth(0).getByRole("button", { name: "No" }).click();
    expect(screen.getByText("A clot may be life-threatening.").elements()).toEqual([]);
  });
});

describe("how much it hurts", () => {
  it("is nothing until it is said, and 0 is an answer", async () => {
    const picked: (number | null)[] = [];
    const scale = (value: number | null) => (
      <Scale
        of="Groin"
        label="now"
        side="left"
        value={value}
        onPick={(next) => picked.push(next)}
      />
    );
    const screen = await show(scale(null));
    const group = screen.getByRole("group", { name: "Groin: now, left" });
    for (const plate of group.getByRole("button").all()) {
      await expect.element(plate).toHaveAttribute("aria-pressed", "false");
    }
    await group.getByRole("button", { name: "0", exact: true }).click();
    await screen.rerender(scale(0));
    const zero = group.getByRole("button", { name: "0", exact: true });
    await expect.element(zero).toHaveAttribute("aria-pressed", "true");
    await zero.click();
    expect(picked).toEqual([0, null]);
  });
});
