import { describe, expect, it, vi } from "vitest";
import { userEvent } from "vitest/browser";
import { type Lane, valueField } from "../../state/domain/fields";
import { benchOf, measureOf, testOf } from "../../testing/bench";
import { show } from "../../testing/show";
import { ChoiceCell } from "./ChoiceCell";

function cell(code: string, measure: string, side: Lane = "left") {
  const test = testOf(code);
  const { bench, sent } = benchOf();
  const question = { step: "s", measure, side, key: "" };
  const at = (lane: Lane, field = measure) =>
    bench.value({ test: code, side: lane, key: "", field: valueField(field) });
  const node = (
    <ChoiceCell
      bench={bench}
      test={test}
      entryKey=""
      measure={measureOf(test, measure)}
      called="Asked"
      question={question}
      now={question}
      onNow={() => {}}
      onAccept={() => {}}
    />
  );
  return { node, at, sent, bench };
}

describe("grades and choices", () => {
  it("are one tap each, and a second tap takes it back", async () => {
    const { node, at, sent } = cell("ankle.anterior_drawer", "laxity");
    const screen = await show(node);
    const two = screen.getByRole("button", { name: /^2/ });
    await two.click();
    expect(at("left")).toBe(2);
    await expect.element(two).toHaveAttribute("aria-pressed", "true");
    await two.click();
    expect(at("left")).toBeNull();
    await expect.element(two).toHaveAttribute("aria-pressed", "false");
    await vi.waitFor(() => expect(sent.map(({ value }) => value)).toEqual([2, null]));
  });

  it("are open until somebody chooses: coming to them writes nothing", async () => {
    const { node, at, sent } = cell("ankle.anterior_drawer", "end_feel");
    const screen = await show(node);
    await userEvent.keyboard("{Tab}{Tab}");
    expect(at("left")).toBeNull();
    expect(sent).toEqual([]);
    for (const plate of screen.getByRole("button").all()) {
      await expect.element(plate).toHaveAttribute("aria-pressed", "false");
    }
  });

  it("say whose side they are of", async () => {
    const { node } = cell("ankle.anterior_drawer", "laxity", "right");
    const screen = await show(node);
    await expect.element(screen.getByRole("group", { name: "Asked, right" })).toBeVisible();
  });

  it("of both sides at once take the place of what was said of one, and the other way round", async () => {
    const { node, at, bench } = cell("hip.gait", "pattern", null);
    const left = { test: "hip.gait", side: "left", key: "", field: valueField("pattern") } as const;
    bench.write([{ ...left, value: ["drop"] }]);
    const screen = await show(node);
    await screen.getByRole("button", { name: /^Smooth/ }).click();
    expect([at("left"), at("right"), at(null)]).toEqual([null, null, ["smooth"]]);
    await screen.unmount();
    const again = cell("hip.gait", "pattern", "left");
    again.bench.write([{ ...left, side: null, value: ["smooth"] }]);
    const one = await show(again.node);
    await one.getByRole("button").nth(2).click();
    expect(again.at(null)).toBeNull();
    expect(again.at("left")).toHaveLength(1);
  });

  it("about the person are written of both sides at once", async () => {
    const { node, at } = cell("leg.clot", "cancer");
    const screen = await show(node);
    await screen.getByRole("button", { name: /^Yes/ }).click();
    expect([at("left"), at("right")]).toEqual([true, true]);
  });
});
