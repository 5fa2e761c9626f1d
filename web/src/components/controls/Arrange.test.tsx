import { afterEach, describe, expect, it, vi } from "vitest";
import { actionOf } from "../../testing/readings";
import { json, problem, serve } from "../../testing/server";
import { SESSION, show, showAs } from "../../testing/show";
import Arrange from "./Arrange";

const REFER = actionOf("refer.tight_soleus", "left", "refer") as never;
const URGENT = actionOf("same_day.danger_hip", "right", "same_day") as never;

const arrange = (action: never, parts: object = {}) => {
  const onChanged = vi.fn();
  return {
    onChanged,
    node: (
      <Arrange screen="s" action={action} name="Soleus tight" onChanged={onChanged} {...parts} />
    ),
  };
};

describe("what is done about an action", () => {
  afterEach(() => vi.unstubAllGlobals());

  it("is kept with who and when, of that action and side", async () => {
    const asked = serve(() => json(null, 204));
    const { node, onChanged } = arrange(REFER);
    const screen = await show(node);
    await screen.getByRole("button", { name: "Arrange…" }).click();
    await screen.getByLabelText("Who sees to it").fill("her doctor");
    await screen.getByLabelText("On", { exact: true }).fill("2026-09-16");
    await screen.getByRole("button", { name: "Keep" }).click();
    await vi.waitFor(() => expect(onChanged).toHaveBeenCalledOnce());
    expect(asked[0]?.body).toMatchObject({
      action: "refer.tight_soleus",
      side: "left",
      does: "arranged",
      whom: "her doctor",
      on: "2026-09-16",
    });
  });

  it("is a second look between two days", async () => {
    const asked = serve(() => json(null, 204));
    const screen = await show(arrange(REFER).node);
    await screen.getByRole("button", { name: "Arrange…" }).click();
    await screen.getByRole("button", { name: "Look again" }).click();
    await screen.getByLabelText("From").fill("2026-09-18");
    await screen.getByRole("button", { name: "Keep" }).click();
    expect(asked).toEqual([]);
    await screen.getByLabelText("To", { exact: true }).fill("2026-09-20");
    await screen.getByRole("button", { name: "Keep" }).click();
    await vi.waitFor(() =>
      expect(asked[0]?.body).toMatchObject({
        does: "again",
        on: "2026-09-18",
        until: "2026-09-20",
        whom: "",
      }),
    );
  });

  it("can be closed or left only with a reason, and left only where it cannot wait", async () => {
    const asked = serve(() => json(null, 204));
    const quiet = await show(arrange(REFER).node);
    await quiet.getByRole("button", { name: "Arrange…" }).click();
    expect(quiet.getByRole("button", { name: "Not arranged" }).elements()).toEqual([]);
    await quiet.getByRole("button", { name: "Nothing more to do" }).click();
    await quiet.getByRole("button", { name: "Keep" }).click();
    expect(asked).toEqual([]);
    await quiet.getByRole("button", { name: "Cancel" }).click();
    await quiet.unmount();
    const urgent = await show(arrange(URGENT, { variant: "urgent" }).node);
    await urgent.getByRole("button", { name: "Arrange…" }).click();
    await urgent.getByRole("button", { name: "Not arranged" }).click();
    await urgent.getByLabelText("Why").fill("went home");
    await urgent.getByRole("button", { name: "Keep" }).click();
    await vi.waitFor(() =>
      expect(asked[0]?.body).toMatchObject({ does: "left", note: "went home", on: null }),
    );
  });

  it("says at the field what the server refuses, and keeps what was typed", async () => {
    const faults = [{ path: "on", given: "2026-09-01", problem: "is before the screen" }];
    serve(() => problem("refused", "Something cannot be kept.", 422, { faults }));
    const { node, onChanged } = arrange(REFER);
    const screen = await show(node);
    await screen.getByRole("button", { name: "Arrange…" }).click();
    await screen.getByLabelText("Who sees to it").fill("her doctor");
    await screen.getByRole("button", { name: "Keep" }).click();
    await expect.element(screen.getByText("is before the screen")).toBeVisible();
    await expect.element(screen.getByLabelText("Who sees to it")).toHaveValue("her doctor");
    expect(onChanged).not.toHaveBeenCalled();
  });

  it("is for somebody licensed; others are told whom to tell", async () => {
    const node = arrange(URGENT, { variant: "urgent" }).node;
    const screen = await showAs({ ...SESSION, role: "student" }, node);
    await expect.element(screen.getByText("Tell a practitioner.", { exact: false })).toBeVisible();
    expect(screen.getByRole("button").elements()).toEqual([]);
  });
});
