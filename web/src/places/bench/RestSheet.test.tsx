import { describe, expect, it, vi } from "vitest";
import { userEvent } from "vitest/browser";
import type { Preview } from "../../api/screens";
import { placeKey } from "../../state/domain/fields";
import { benchOf, testOf } from "../../testing/bench";
import { show } from "../../testing/show";
import { expectedHere } from "./expected";
import RestSheet from "./RestSheet";

const TEST = testOf("hip.fadir");

function sheet(reading: Preview["reading"] | null = null) {
  const { bench, sent } = benchOf([], reading);
  const standing = { value: bench.value.bind(bench), held: () => false };
  const items = expectedHere([TEST], TEST, {}, standing);
  const onClose = vi.fn();
  return {
    bench,
    sent,
    items,
    onClose,
    node: (list = items) => <RestSheet bench={bench} items={list} onClose={onClose} />,
  };
}

describe("rest as expected", () => {
  it("names every value, and writes exactly those", async () => {
    const { node, bench, items, onClose } = sheet();
    expect(items.length).toBeGreaterThan(1);
    const screen = await show(node());
    await screen.getByRole("button", { name: `Write ${items.length} values` }).click();
    for (const item of items) expect(bench.value(item.place)).toEqual(item.value);
    expect(onClose).toHaveBeenCalledOnce();
  });

  it("leaves out what was emptied, by side", async () => {
    const { node, bench, items } = sheet();
    const screen = await show(node());
    const [out] = items;
    if (!out) throw new Error("nothing is expected here");
    const name = `${out.test.name}, ${out.label}, ${out.place.side ?? "both"}`;
    const half = screen.getByRole("button", { name, exact: true });
    await half.click();
    await expect.element(half).toHaveAttribute("aria-pressed", "false");
    await screen.getByRole("button", { name: /^Write/ }).click();
    expect(bench.value(out.place)).toBeNull();
    for (const item of items.slice(1)) expect(bench.value(item.place)).toEqual(item.value);
  });

  it("can write nothing where everything was emptied, and nothing for Escape", async () => {
    const { node, sent, bench, items, onClose } = sheet();
    const screen = await show(node(items.slice(0, 1)));
    await screen.getByRole("button", { pressed: true }).click();
    await expect.element(screen.getByRole("button", { name: "Write 0 values" })).toBeDisabled();
    await userEvent.keyboard("{Escape}");
    await vi.waitFor(() => expect(onClose).toHaveBeenCalled());
    expect(sent).toEqual([]);
    expect(items.map((item) => bench.value(item.place)).filter((value) => value !== null)).toEqual(
      [],
    );
  });

  it("says that what must wait is not known while no reading came", async () => {
    const { node } = sheet();
    const screen = await show(node([]));
    await expect
      .element(screen.getByText("The reading has not come yet", { exact: false }))
      .toBeVisible();
  });

  it("has no two values of one place", () => {
    const keys = sheet().items.map((item) => placeKey(item.place));
    expect(new Set(keys).size).toBe(keys.length);
  });
});
