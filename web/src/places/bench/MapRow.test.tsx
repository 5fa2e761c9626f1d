import { describe, expect, it } from "vitest";
import type { Side } from "../../api/client";
import { valueField } from "../../state/domain/fields";
import { benchOf, testOf } from "../../testing/bench";
import { show } from "../../testing/show";
import MapRow from "./MapRow";

const PALPATION = testOf("ankle.palpation");
const MEASURE = PALPATION.measures.find((measure) => measure.map?.pressed);

function row() {
  if (!MEASURE?.map?.pressed) throw new Error("no list with what was pressed");
  const { pressed } = MEASURE.map;
  const { bench, sent } = benchOf();
  const question = { step: "s", measure: MEASURE.code, side: "left" as const, key: "" };
  const at = (side: Side, code: string) =>
    bench.value({ test: PALPATION.code, side, key: "", field: valueField(code) });
  const node = (
    <MapRow
      bench={bench}
      test={PALPATION}
      entryKey=""
      measure={MEASURE}
      step="s"
      now={question}
      onNow={() => {}}
    />
  );
  const held = (side: Side) => ({ tender: at(side, MEASURE.code), pressed: at(side, pressed) });
  return { node, held, sent };
}

const firstPoint = (screen: Awaited<ReturnType<typeof show>>) =>
  screen.getByRole("button", { name: ", left: " }).first();

describe("a map to press on", () => {
  it("writes what is tapped on the side it was tapped on, and nothing of the other", async () => {
    const { node, held } = row();
    const screen = await show(node);
    await expect.element(firstPoint(screen)).toHaveAccessibleName(/not pressed yet/);
    expect(held("left")).toEqual({ tender: null, pressed: null });
    await firstPoint(screen).click();
    expect(held("left").tender).toEqual([]);
    expect(held("left").pressed).toHaveLength(1);
    expect(held("right")).toEqual({ tender: null, pressed: null });
  });

  it("says what each tap makes of a point, and that nothing touched is nothing said", async () => {
    const { node, held } = row();
    const screen = await show(node);
    for (const says of [/pressed, not tender/, /pressed, tender/, /sore, left unpressed/]) {
      await firstPoint(screen).click();
      await expect.element(firstPoint(screen)).toHaveAccessibleName(says);
    }
    expect(held("left").tender).toHaveLength(1);
    expect(held("left").pressed).toEqual([]);
    await firstPoint(screen).click();
    expect(held("left")).toEqual({ tender: null, pressed: null });
  });

  it("says the rest of this view as pressed on one side, and leaves what was found", async () => {
    const { node, held } = row();
    const screen = await show(node);
    await firstPoint(screen).click();
    await firstPoint(screen).click();
    const before = held("left").tender;
    expect(before).toHaveLength(1);
    await screen.getByRole("button", { name: "Rest pressed, not tender, left" }).click();
    expect(held("left").tender).toEqual(before);
    expect((held("left").pressed as string[]).length).toBeGreaterThan(1);
    expect(held("right")).toEqual({ tender: null, pressed: null });
  });

  it("keeps what is found when another view is looked at", async () => {
    const { node, held } = row();
    const screen = await show(node);
    await firstPoint(screen).click();
    const before = held("left");
    const views = screen.getByRole("group", { name: "Views" });
    const second = views.getByRole("button").nth(1);
    await second.click();
    await expect.element(second).toHaveAttribute("aria-pressed", "true");
    expect(held("left")).toEqual(before);
  });
});
