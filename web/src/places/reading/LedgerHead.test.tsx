import { describe, expect, it } from "vitest";
import type { Reading, Screen } from "../../api/screens";
import { screenOf } from "../../testing/bench";
import { actionOf, CATALOGUE, readingOf } from "../../testing/readings";
import { show } from "../../testing/show";
import { LedgerHead } from "./LedgerHead";

const head = (found: Reading, screen: Screen, frozen = false) => (
  <LedgerHead
    reading={found}
    screen={screen}
    catalogue={CATALOGUE}
    frozen={frozen}
    onChanged={() => {}}
  />
);

const hurts = (side: string) => screenOf([], { complaint: { side, region: "ankle", sites: [] } });

describe("the head of the ledger", () => {
  it("says which lane hurts, and which is the other side", async () => {
    const screen = await show(head(readingOf(), hurts("right")));
    const text = screen.container.textContent ?? "";
    expect(text.match(/hurts here/g)).toHaveLength(1);
    expect(text.match(/other side/g)).toHaveLength(1);
    const lanes = [...screen.container.querySelectorAll(".lane-right")];
    expect(lanes.map((lane) => lane.textContent).join()).toContain("hurts here");
  });

  it("says nothing of hurting where nobody was asked, and both where both hurt", async () => {
    const nobody = await show(head(readingOf(), screenOf()));
    expect(nobody.container.textContent).not.toContain("hurts here");
    expect(nobody.container.textContent).not.toContain("other side");
    await nobody.unmount();
    const both = await show(head(readingOf(), hurts("both")));
    expect(both.container.textContent?.match(/hurts here/g)).toHaveLength(2);
  });

  it("puts what is to be done in the lane of its side", async () => {
    const found = readingOf({ actions: [actionOf("recheck.instability_atfl", "left", "recheck")] });
    const screen = await show(head(found, hurts("left")));
    const lanes = (side: string) =>
      [...screen.container.querySelectorAll(`.lane-${side}`)]
        .map((lane) => lane.textContent)
        .join();
    expect(lanes("left")).toContain("Front outer ligament lax");
    expect(lanes("right")).not.toContain("Front outer ligament lax");
  });

  it("offers to arrange it, but not on a signed version", async () => {
    const found = readingOf({ actions: [actionOf("refer.tight_soleus", "left", "refer")] });
    const open = await show(head(found, hurts("left")));
    await expect.element(open.getByRole("button", { name: /rrange/ })).toBeVisible();
    await open.unmount();
    const frozen = await show(head(found, hurts("left"), true));
    await expect.element(frozen.getByText("Soleus tight")).toBeVisible();
    expect(frozen.getByRole("button", { name: /rrange/ }).elements()).toEqual([]);
  });
});
