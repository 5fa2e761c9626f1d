// What belongs to a lane: its tools, what was seen, what it gave before, and the gate that holds it.
import { describe, expect, it, vi } from "vitest";
import { userEvent } from "vitest/browser";
import type { Side } from "../../api/client";
import { valueField } from "../../state/domain/fields";
import { benchOf, screenOf, testOf } from "../../testing/bench";
import { CATALOGUE, readingOf } from "../../testing/readings";
import { show } from "../../testing/show";
import { EarlierRows } from "./EarlierRows";
import { HeldRow } from "./HeldRow";
import { LaneTools } from "./LaneTools";
import { SeenRow } from "./SeenRow";

const TEST = testOf("hip.modified_thomas");
const at = (field: string, side: Side = "left") =>
  ({ test: TEST.code, side, key: "", field }) as const;

async function tools() {
  const { bench } = benchOf();
  const question = { step: "s", measure: "thigh_angle", side: "left" as const, key: "" };
  const sites = [{ code: "groin", label: "Groin", areas: [TEST.pain_sites] }] as never;
  // Their cards open above them.
  const screen = await show(
    <div style={{ paddingTop: "32rem" }}>
      <LaneTools
        bench={bench}
        test={TEST}
        entryKey=""
        of=""
        screen={screenOf()}
        now={question}
        sites={sites}
      />
    </div>,
  );
  return { bench, screen };
}

describe("the tools of a lane", () => {
  it("ask how much and where only when it hurts, on the side they were opened from", async () => {
    const { bench, screen } = await tools();
    await screen.getByRole("button", { name: "Pain?, left" }).click();
    expect(screen.getByLabelText("How much, 0 to 10").elements()).toEqual([]);
    await screen.getByRole("button", { name: "Hurts", exact: true }).click();
    expect(bench.value(at("pain"))).toEqual({ present: true });
    await screen.getByLabelText("How much, 0 to 10").getByRole("button", { name: "7" }).click();
    await screen.getByLabelText("Where", { exact: true }).getByRole("button").first().click();
    expect(bench.value(at("pain"))).toMatchObject({ present: true, nrs: 7, site: "groin" });
    expect(bench.value(at("pain", "right"))).toBeNull();
  });

  it("take a reason for what was not done, and let it be done after all", async () => {
    const { bench, screen } = await tools();
    await screen.getByRole("button", { name: "Not done, left" }).click();
    await screen.getByRole("button", { name: "too sore" }).click();
    expect(bench.value(at("declined"))).toBe("too sore");
    await screen.getByRole("button", { name: "Not done ✓, left" }).click();
    await screen.getByRole("button", { name: "It is to be done" }).click();
    expect(bench.value(at("declined"))).toBeNull();
  });

  it("decline nothing where values stand", async () => {
    const { bench, screen } = await tools();
    bench.write([{ ...at(valueField("thigh_angle")), value: -4 }]);
    await screen.getByRole("button", { name: "Not done, left" }).click();
    await expect.element(screen.getByText("Values stand here.", { exact: false })).toBeVisible();
    expect(screen.getByRole("button", { name: "too sore" }).elements()).toEqual([]);
  });

  it("keep a note that is being written when the card is closed, and write it when it is kept", async () => {
    const { bench, screen } = await tools();
    await screen.getByRole("button", { name: "Note, right" }).click();
    await screen.getByRole("textbox").fill("guards");
    await userEvent.keyboard("{Escape}");
    expect(bench.value(at("note", "right"))).toBeNull();
    const opener = screen.getByRole("button", { name: "Note, right" });
    await expect.element(opener).toHaveAttribute("aria-expanded", "false");
    await opener.click();
    await expect.element(opener).toHaveAttribute("aria-expanded", "true");
    await expect.element(screen.getByRole("textbox")).toHaveValue("guards");
    await screen.getByRole("button", { name: "Keep note" }).click();
    expect(bench.value(at("note", "right"))).toBe("guards");
    await expect.element(screen.getByRole("button", { name: "Note ✓, right" })).toBeVisible();
  });
});

describe("what was seen", () => {
  it("is ticked in its own lane, and nothing ticked is nothing said", async () => {
    const { bench } = benchOf();
    const step = TEST.steps.find((each) => each.seen.length > 0);
    if (!step) throw new Error("nothing can be seen here");
    const screen = await show(<SeenRow bench={bench} test={TEST} entryKey="" step={step} />);
    const first = screen.getByRole("group", { name: "Seen, right" }).getByRole("button").first();
    await first.click();
    expect(bench.value(at("seen", "right"))).toEqual([step.seen[0]]);
    expect(bench.value(at("seen"))).toBeNull();
    await first.click();
    expect(bench.value(at("seen", "right"))).toBeNull();
  });
});

describe("what the steps before gave", () => {
  it("is read as the clinic reads trials, and says what is not there yet", async () => {
    const { bench } = benchOf();
    bench.write([{ ...at(valueField("thigh_angle")), value: [8, 9, 13] }]);
    const rows = (how: "mean" | "median") => (
      <EarlierRows bench={bench} test={TEST} entryKey="" steps={TEST.steps} how={how} />
    );
    const screen = await show(rows("mean"));
    expect(screen.container.textContent).toContain("+10°");
    expect(screen.container.textContent).toContain("not yet");
    await screen.rerender(rows("median"));
    expect(screen.container.textContent).toContain("+9°");
  });
});

describe("a gate", () => {
  it("fills the lane it holds alone", async () => {
    const shut = [{ gate: "fracture_doubt", side: "left", tests: [TEST.code] }];
    const { bench } = benchOf([], readingOf({ shut }));
    await vi.waitFor(() => expect(bench.state.getState().reading).not.toBeNull());
    const screen = await show(
      <HeldRow bench={bench} test={TEST} catalogue={CATALOGUE} screen={screenOf()} />,
    );
    expect(screen.container.querySelector(".lane-left")?.textContent).toContain("Held left.");
    expect(screen.container.querySelector(".lane-right")?.textContent).toBe("");
  });
});
