import { describe, expect, it, vi } from "vitest";
import { benchOf } from "../../testing/bench";
import { show } from "../../testing/show";
import { LeaveOut } from "./LeaveOut";

const PLANNED = ["hip.fadir", "hip.faber"];
const at = (field: string) => ({ test: "route", side: null, key: "", field }) as const;

function leaveOut() {
  const { bench, sent } = benchOf();
  const onDone = vi.fn();
  const node = (
    <LeaveOut bench={bench} planned={PLANNED} test="hip.fadir" name="FADIR" onDone={onDone} />
  );
  return { bench, sent, onDone, node };
}

describe("leaving a stop out", () => {
  it("takes a reason, keeps it, and leaves the rest of the plan", async () => {
    const { bench, sent, node, onDone } = leaveOut();
    const screen = await show(node);
    await screen.getByRole("button", { name: "Leave out: FADIR" }).click();
    expect(bench.value(at("left_out.hip.fadir"))).toBeNull();
    await screen.getByRole("button", { name: "too sore" }).click();
    expect(bench.value(at("left_out.hip.fadir"))).toBe("too sore");
    await vi.waitFor(() => expect(sent).toHaveLength(2));
    // Gone from the plan, and nothing else of it is touched.
    expect(sent.map(({ field, value }) => [field, value])).toEqual([
      ["left_out.hip.fadir", "too sore"],
      ["planned.hip.fadir", null],
    ]);
    expect(onDone).toHaveBeenCalledOnce();
  });

  it("takes no empty reason of its own, and keeps what was being written", async () => {
    const { node, bench } = leaveOut();
    const first = await show(node);
    await first.getByRole("button", { name: "Leave out: FADIR" }).click();
    await expect.element(first.getByRole("button", { name: "Keep reason" })).toBeDisabled();
    await first.getByLabelText("Another reason").fill("just had");
    await first.unmount();
    const again = await show(node);
    await expect.element(again.getByLabelText("Another reason")).toHaveValue("just had");
    await again.getByRole("button", { name: "Keep reason" }).click();
    expect(bench.value(at("left_out.hip.fadir"))).toBe("just had");
  });
});
