import { describe, expect, it, vi } from "vitest";
import type { Clash } from "../../api/screens";
import { CATALOGUE } from "../../testing/readings";
import { SESSION, show, showAs } from "../../testing/show";
import { TwoValues } from "./TwoValues";

const answer = (id: string, value: unknown, at: string, parts: object = {}) => ({
  id,
  revision: 1,
  test: "hip.modified_thomas",
  side: "left",
  key: "",
  field: "values.thigh_angle",
  value,
  by: `${id} Roe`,
  from_file: false,
  at,
  ...parts,
});

const clash = (parts: object = {}): Clash =>
  ({
    holds: answer("Ada", 8, "2026-09-14T10:05:00Z"),
    beside: answer("Bo", -4, "2026-09-14T10:00:00Z"),
    danger: false,
    ...parts,
  }) as unknown as Clash;

describe("two answers to one question", () => {
  it("stand beside each other in the order they were seen, whichever holds", async () => {
    const screen = await show(
      <TwoValues clashes={[clash()]} catalogue={CATALOGUE} onChoose={() => {}} />,
    );
    const texts = screen
      .getByRole("button")
      .all()
      .map((button) => button.element().textContent);
    expect(texts[0]).toMatch(/Bo Roe.*beside it/);
    expect(texts[1]).toMatch(/Ada Roe.*holds meanwhile/);
  });

  it("are settled by the one that is tapped, and by nothing else", async () => {
    const onChoose = vi.fn();
    const one = clash();
    const screen = await show(
      <TwoValues clashes={[one]} catalogue={CATALOGUE} onChoose={onChoose} />,
    );
    expect(onChoose).not.toHaveBeenCalled();
    await screen.getByRole("button", { name: /Bo Roe/ }).click();
    expect(onChoose).toHaveBeenCalledExactlyOnceWith(one.beside);
  });

  it("about a danger are for somebody licensed, and come first", async () => {
    const danger = clash({ danger: true, beside: answer("Cy", 1, "2026-09-14T09:00:00Z") });
    const node = (
      <TwoValues clashes={[clash(), danger]} catalogue={CATALOGUE} onChoose={() => {}} />
    );
    const screen = await showAs({ ...SESSION, role: "assistant" }, node);
    const buttons = screen.getByRole("button").all();
    await expect.element(buttons[0] as never).toBeDisabled();
    expect(buttons[0]?.element().textContent).toContain("Cy Roe");
    await expect.element(buttons[2] as never).toBeEnabled();
    await expect
      .element(screen.getByText("The more careful one holds", { exact: false }))
      .toBeVisible();
  });

  it("are not there where there are none", async () => {
    const screen = await show(<TwoValues clashes={[]} catalogue={CATALOGUE} onChoose={() => {}} />);
    expect(screen.container.textContent).toBe("");
  });
});
