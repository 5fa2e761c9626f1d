import { afterEach, describe, expect, it, vi } from "vitest";
import { benchOf, screenOf, testOf } from "../../testing/bench";
import { CATALOGUE } from "../../testing/readings";
import { json, problem, serve } from "../../testing/server";
import { SESSION, show, showAs } from "../../testing/show";
import { HeldLane } from "./HeldLane";

const TEST = testOf("ankle.hop");

function lane() {
  const { bench } = benchOf();
  const node = (
    <HeldLane
      bench={bench}
      test={TEST}
      catalogue={CATALOGUE}
      screen={screenOf()}
      side="right"
      gate="fracture_doubt"
    />
  );
  return { bench, node };
}

describe("a gate on its side", () => {
  afterEach(() => vi.unstubAllGlobals());

  it("says which side is held and is opened by nothing but a reason", async () => {
    const asked = serve(() => json(null, 204));
    const { node } = lane();
    const screen = await show(node);
    await expect.element(screen.getByRole("status")).toHaveTextContent("Held right.");
    await screen.getByRole("button", { name: "Open it with a reason" }).click();
    const opens = screen.getByRole("button", { name: "Open on the right" });
    await expect.element(opens).toBeDisabled();
    await screen.getByLabelText("Why is it safe to open, right").fill("   ");
    await expect.element(opens).toBeDisabled();
    await screen.getByLabelText("Why is it safe to open, right").fill(" radiograph clear ");
    await opens.click();
    await vi.waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]?.body).toMatchObject({
      gate: "fracture_doubt",
      side: "right",
      reason: "radiograph clear",
    });
  });

  it("keeps the reason where the server refuses, and says so", async () => {
    serve(() => problem("not-allowed", "Only a practitioner may.", 403));
    const { node } = lane();
    const screen = await show(node);
    await screen.getByRole("button", { name: "Open it with a reason" }).click();
    await screen.getByLabelText("Why is it safe to open, right").fill("radiograph clear");
    await screen.getByRole("button", { name: "Open on the right" }).click();
    await expect.element(screen.getByText("Only a practitioner may.")).toBeVisible();
    await expect
      .element(screen.getByLabelText("Why is it safe to open, right"))
      .toHaveValue("radiograph clear");
  });

  it("takes up a reason that was being written, and forgets it where it is left shut", async () => {
    serve(() => json(null, 204));
    const { node, bench } = lane();
    const first = await show(node);
    await first.getByRole("button", { name: "Open it with a reason" }).click();
    await first.getByLabelText("Why is it safe to open, right").fill("seen by");
    await first.unmount();
    const again = await show(node);
    await expect
      .element(again.getByLabelText("Why is it safe to open, right"))
      .toHaveValue("seen by");
    await again.getByRole("button", { name: "Leave it shut" }).click();
    expect(
      bench.textDraft({
        test: TEST.code,
        side: "right",
        key: "",
        field: "override.fracture_doubt",
      }),
    ).toBeNull();
  });

  it("is not opened by who is not licensed", async () => {
    const { node } = lane();
    const screen = await showAs({ ...SESSION, role: "assistant" }, node);
    await expect
      .element(screen.getByRole("button", { name: "A practitioner can open it" }))
      .toBeDisabled();
  });
});
