import { beforeEach, describe, expect, it, vi } from "vitest";
import { userEvent } from "vitest/browser";
import { chooseLengthUnit } from "../../state/device/preferences";
import { valueField } from "../../state/domain/fields";
import { benchOf, measureOf, testOf } from "../../testing/bench";
import { show } from "../../testing/show";
import { NumberCell, type NumberCellProps } from "./NumberCell";

const THOMAS = testOf("hip.modified_thomas");
const REACH = testOf("ankle.reach");

function cell(code: string, parts: Partial<NumberCellProps> = {}) {
  const test = parts.test ?? THOMAS;
  const { bench, sent } = benchOf();
  const question = { step: "s", measure: code, side: "left" as const, key: "" };
  const place = { test: test.code, side: "left" as const, key: "", field: valueField(code) };
  const onAccept = vi.fn(() => void bench.commit(place));
  const props: NumberCellProps = {
    bench,
    test,
    entryKey: "",
    measure: measureOf(test, code),
    called: "Thigh",
    question,
    now: question,
    dial: null,
    how: "mean",
    onNow: () => {},
    onAccept,
    ...parts,
  };
  return { bench, sent, place, onAccept, node: <NumberCell {...props} /> };
}

describe("a number in its lane", () => {
  beforeEach(() => chooseLengthUnit("mm"));

  it("is taken by Enter as it was typed, and once", async () => {
    const { node, sent, onAccept } = cell("thigh_angle");
    const screen = await show(node);
    await screen.getByLabelText("Thigh, left").fill("−8");
    expect(sent).toEqual([]);
    await userEvent.keyboard("{Enter}");
    expect(onAccept).toHaveBeenCalledOnce();
    await vi.waitFor(() => expect(sent.map(({ value }) => value)).toEqual([-8]));
  });

  it("writes nothing for arriving, for Enter on nothing, or for leaving it empty", async () => {
    const { node, sent, bench, place } = cell("thigh_angle");
    const screen = await show(node);
    await screen.getByLabelText("Thigh, left").click();
    await userEvent.keyboard("{Enter}{Tab}");
    expect(bench.value(place)).toBeNull();
    expect(sent).toEqual([]);
  });

  it("says at the field what is no number, and keeps what was typed", async () => {
    const { node, sent } = cell("thigh_angle");
    const screen = await show(node);
    const input = screen.getByLabelText("Thigh, left");
    await input.fill("abc");
    await userEvent.keyboard("{Enter}");
    await expect.element(screen.getByRole("alert")).toHaveTextContent("is not a number");
    await expect.element(input).toHaveValue("abc");
    await expect.element(input).toHaveAttribute("aria-invalid", "true");
    expect(sent).toEqual([]);
  });

  it("shows several trials beside their mean", async () => {
    const { node, bench, place } = cell("thigh_angle");
    const screen = await show(node);
    bench.write([{ ...place, value: [8, 9, 13] }]);
    await expect.element(screen.getByLabelText("Thigh, left")).toHaveValue("+10");
    await expect.element(screen.getByText("mean of")).toBeVisible();
    await expect.element(screen.getByText("13", { exact: true })).toBeVisible();
  });

  it("takes what is typed in the unit it was typed in when the unit is changed", async () => {
    const { node, bench, place } = cell("anterior", { test: REACH, called: "Anterior" });
    const screen = await show(node);
    await screen.getByRole("button", { name: "unit of lengths" }).click();
    await screen.getByLabelText("Anterior, left").fill("60");
    await screen.getByRole("button", { name: "unit of lengths" }).click();
    await vi.waitFor(() => expect(bench.value(place)).toBe(600));
    await expect.element(screen.getByRole("button", { name: "in, unit" })).toBeVisible();
  });

  it("keeps which way a dial was read with its number, and lets the way be turned", async () => {
    const { node, bench, place } = cell("thigh_angle", { dial: "ninety_neutral" });
    const screen = await show(node);
    await screen.getByLabelText("Thigh, left").fill("98");
    const ways = screen.getByRole("group", { name: "Which way, left" }).getByRole("button");
    await ways.nth(1).click();
    await expect.element(ways.nth(1)).toHaveAttribute("aria-pressed", "true");
    await userEvent.keyboard("{Enter}");
    await vi.waitFor(() =>
      expect(bench.value(place)).toEqual({ reading: 98, dial: "ninety_neutral", direction: -1 }),
    );
  });
});
