// Pain, repeats, points and holds: each in its own lane, and nothing written that nobody said.
import { afterEach, describe, expect, it, vi } from "vitest";
import { type Lane, valueField } from "../../state/domain/fields";
import { benchOf, measureOf, TESTS, testOf } from "../../testing/bench";
import { show } from "../../testing/show";
import { ClockCell } from "./ClockCell";
import { CounterCell } from "./CounterCell";
import { clock } from "./clock";
import type { NumberCellProps } from "./NumberCell";
import { PainAsk, PainRow } from "./PainRow";
import { PointsCell } from "./PointsCell";

function given(code: string, name: string, side: Lane = "left") {
  const test = testOf(code);
  const { bench, sent } = benchOf();
  const question = { step: "s", measure: name, side, key: "" };
  const props: NumberCellProps = {
    bench,
    test,
    entryKey: "",
    measure: measureOf(test, name),
    called: "Asked",
    question,
    now: question,
    dial: null,
    how: "mean",
    onNow: () => {},
    onAccept: () => {},
  };
  const value = (field = name, lane: Lane = side) =>
    bench.value({ test: code, side: lane, key: "", field: valueField(field) });
  return { bench, sent, props, value, test };
}

describe("pain alone", () => {
  const TEST = testOf("ankle.squeeze");

  it("is one tap a side, taken back by a second one, and never of the other side", async () => {
    const { bench } = benchOf();
    const pain = (side: Lane) => bench.value({ test: TEST.code, side, key: "", field: "pain" });
    const screen = await show(
      <PainRow bench={bench} test={TEST} entryKey="" of="" onNow={() => {}} />,
    );
    const left = screen.getByRole("group", { name: "Pain, left" });
    await left.getByRole("button", { name: "Hurts" }).click();
    expect([pain("left"), pain("right")]).toEqual([{ present: true }, null]);
    await left.getByRole("button", { name: "No pain" }).click();
    expect(pain("left")).toEqual({ present: false });
    await left.getByRole("button", { name: "No pain" }).click();
    expect(pain("left")).toBeNull();
  });

  it("is asked of the sound side first, then of the other, with what the first said", async () => {
    const { bench } = benchOf();
    const screen = await show(<PainAsk bench={bench} test={TEST} entryKey="" first="right" />);
    const text = () => screen.container.textContent ?? "";
    expect(text()).toContain("RIGHT");
    expect(text()).toContain("not yet");
    bench.write([
      { test: TEST.code, side: "right", key: "", field: "pain", value: { present: false } },
    ]);
    await vi.waitFor(() => expect(text()).toContain("LEFT"));
  });
});

describe("repeats", () => {
  it("are counted up and down, and end at nothing below their least", async () => {
    const { props, value } = given("ankle.heel_rise", "count");
    const screen = await show(<CounterCell {...props} />);
    const [less, more] = ["−1, one less, left", "+1, one more, left"].map((name) =>
      screen.getByRole("button", { name }),
    );
    expect(value()).toBeNull();
    await more?.click();
    await more?.click();
    expect(value()).toBe(2);
    for (let at = 0; at < 4; at++) await less?.click();
    expect(value()).toBe(0);
    expect(value("count", "right")).toBeNull();
  });
});

describe("a score of points", () => {
  const scored = TESTS.flatMap((test) =>
    test.measures
      .filter((measure) => measure.points_for.length > 0)
      .map((measure) => ({ test: test.code, measure })),
  );

  it.each(scored)("of $test is written once every point is answered", async ({ test, measure }) => {
    const side = measure.per_side ? "left" : null;
    const { props, value } = given(test, measure.code, side);
    const screen = await show(<PointsCell {...props} />);
    const lines = measure.points_for;
    for (const line of lines.slice(1)) {
      await screen.getByRole("button", { name: `Yes, ${line}`, exact: true }).click();
    }
    expect(value()).toBeNull();
    await expect.element(screen.getByRole("status")).toHaveTextContent("1 unanswered");
    await screen.getByRole("button", { name: `No, ${lines[0]}`, exact: true }).click();
    expect(value()).toBe(lines.length - 1);
    // One that is open again is no no.
    await screen.getByRole("button", { name: `No, ${lines[0]}`, exact: true }).click();
    expect(value()).toBeNull();
  });

  it("is there to be scored", () => expect(scored.length).toBeGreaterThan(0));
});

describe("a hold", () => {
  afterEach(() => clock.setState(null, true));

  it("runs on one side at a time, is written when it is stopped, and says when it hurt", async () => {
    const { props, value } = given("hip.single_leg_stance", "hold");
    const screen = await show(<ClockCell {...props} />);
    await screen.getByRole("button", { name: /^Start/ }).click();
    const stop = screen.getByRole("button", { name: "Stop, left" });
    await expect.element(stop).toHaveAttribute("aria-pressed", "true");
    expect(value()).toBeNull();
    await vi.waitFor(() => expect(screen.container.textContent).toMatch(/0\.[1-9] s/));
    await screen.getByRole("button", { name: "Hurts now, left" }).click();
    await stop.click();
    await vi.waitFor(() => expect(value()).toBeGreaterThan(0));
    expect(value("pain_onset")).toBeLessThanOrEqual(Number(value()));
    expect(value("hold", "right")).toBeNull();
  });
});
