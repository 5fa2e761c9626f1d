import { afterEach, describe, expect, it, vi } from "vitest";
import { screenOf } from "../../testing/bench";
import { CATALOGUE } from "../../testing/readings";
import { json, problem, serve } from "../../testing/server";
import { SESSION, show, showAs } from "../../testing/show";
import { LateAnswers } from "./LateAnswers";

const late = {
  id: "late-1",
  test: "hip.modified_thomas",
  side: "left",
  key: "",
  field: "values.thigh_angle",
  value: -4,
  at: "2026-09-14T10:00:00Z",
};
const screen = screenOf([], { state: "signed", late: [late], signatures: [{ id: "sig-0" }] });

describe("what arrived after signing", () => {
  afterEach(() => vi.unstubAllGlobals());

  it("is said with its side, and changes nothing by itself", async () => {
    const asked = serve(() => json(null, 204));
    const shown = await show(
      <LateAnswers screen={screen} catalogue={CATALOGUE} onChanged={() => {}} />,
    );
    await expect
      .element(shown.getByLabelText("Arrived after signing"))
      .toHaveTextContent(/left.*−4/);
    expect(asked).toEqual([]);
  });

  it("becomes an amendment of the signature that is shown, with a reason and the password", async () => {
    const asked = serve(() => json(null, 204));
    const onChanged = vi.fn();
    const shown = await show(
      <LateAnswers screen={screen} catalogue={CATALOGUE} onChanged={onChanged} />,
    );
    await shown.getByRole("button", { name: "Amend with these" }).click();
    expect(asked).toEqual([]);
    await shown.getByLabelText("Why the signed screen is amended").fill("came late");
    await shown.getByLabelText("Your password").fill("a long enough password");
    await shown.getByRole("button", { name: "Amend with these" }).click();
    await vi.waitFor(() => expect(onChanged).toHaveBeenCalledOnce());
    expect(asked[0]?.body).toMatchObject({
      reason: "came late",
      stands_on: "sig-0",
      late: ["late-1"],
    });
  });

  it("is looked at again where somebody else amended meanwhile, with nothing lost", async () => {
    serve(() => problem("newer-signature", "Somebody amended it meanwhile.", 409));
    const onChanged = vi.fn();
    const shown = await show(
      <LateAnswers screen={screen} catalogue={CATALOGUE} onChanged={onChanged} />,
    );
    await shown.getByLabelText("Why the signed screen is amended").fill("came late");
    await shown.getByLabelText("Your password").fill("a long enough password");
    await shown.getByRole("button", { name: "Amend with these" }).click();
    await vi.waitFor(() => expect(onChanged).toHaveBeenCalledOnce());
    await expect
      .element(shown.getByLabelText("Why the signed screen is amended"))
      .toHaveValue("came late");
  });

  it("is for somebody licensed to decide", async () => {
    const node = <LateAnswers screen={screen} catalogue={CATALOGUE} onChanged={() => {}} />;
    const shown = await showAs({ ...SESSION, role: "assistant" }, node);
    await expect.element(shown.getByText("A practitioner decides", { exact: false })).toBeVisible();
    expect(shown.getByRole("button").elements()).toEqual([]);
  });
});
