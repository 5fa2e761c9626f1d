import { afterEach, describe, expect, it, vi } from "vitest";
import { userEvent } from "vitest/browser";
import type { Catalogue } from "../../api/catalogue";
import type { Identity, Reading } from "../../api/screens";
import { screenOf, TESTS } from "../../testing/bench";
import { json, problem, serve } from "../../testing/server";
import { show } from "../../testing/show";
import { SignDialog } from "./SignDialog";

const catalogue = { tests: TESTS, flag_names: {} } as unknown as Catalogue;
const identity = { answers: "aaaaaaaaaaaa" } as unknown as Identity;

const reading = (parts: object = {}): Reading =>
  ({
    actions: [],
    ask: [],
    coverage: { planned: 1, done: 1, declined: 0, open: [], unexamined: [] },
    ...parts,
  }) as unknown as Reading;

function dialog(found = reading()) {
  const [onSigned, onStale, onClose] = [vi.fn(), vi.fn(), vi.fn()];
  const node = (
    <SignDialog
      screen={screenOf()}
      catalogue={catalogue}
      reading={found}
      identity={identity}
      refreshing={false}
      onClose={onClose}
      onSigned={onSigned}
      onStale={onStale}
    />
  );
  return { node, onSigned, onStale, onClose };
}

describe("signing", () => {
  afterEach(() => vi.unstubAllGlobals());

  it("sends the password and the reading that is shown", async () => {
    const asked = serve(() => json(null, 204));
    const { node, onSigned } = dialog();
    const screen = await show(node);
    await screen.getByLabelText("Your password").fill("a long enough password");
    await userEvent.keyboard("{Enter}");
    await vi.waitFor(() => expect(onSigned).toHaveBeenCalledOnce());
    expect(asked.map(({ path }) => path)).toEqual(["/api/screens/s/sign"]);
    expect(asked[0]?.body).toMatchObject({ password: "a long enough password", shown: identity });
  });

  it("asks nothing of the server for Enter on an empty field", async () => {
    const asked = serve(() => json(null, 204));
    const { node, onSigned } = dialog();
    await show(node);
    await userEvent.keyboard("{Enter}");
    expect(asked).toEqual([]);
    expect(onSigned).not.toHaveBeenCalled();
  });

  it("keeps the dialog for a wrong password, and says so", async () => {
    serve(() => problem("wrong-password", "This is not your password.", 403));
    const { node, onSigned, onStale } = dialog();
    const screen = await show(node);
    await screen.getByLabelText("Your password").fill("something else");
    await screen.getByRole("button", { name: "Sign", exact: true }).click();
    await expect.element(screen.getByText("This is not your password.")).toBeVisible();
    expect(onSigned).not.toHaveBeenCalled();
    expect(onStale).not.toHaveBeenCalled();
  });

  it("has what is shown brought up to date where it is no longer what would be signed", async () => {
    serve(() =>
      problem("newer-reading", "There is a newer reading.", 409, { changed: ["answers"] }),
    );
    const { node, onSigned, onStale } = dialog();
    const screen = await show(node);
    await screen.getByLabelText("Your password").fill("a long enough password");
    await userEvent.keyboard("{Enter}");
    await vi.waitFor(() => expect(onStale).toHaveBeenCalledOnce());
    expect(onSigned).not.toHaveBeenCalled();
  });

  it("is not over what is open in silence: it asks for the reason first", async () => {
    const open = { planned: 2, done: 1, declined: 0, open: ["hip.fadir"], unexamined: [] };
    const { node } = dialog(reading({ coverage: open }));
    const screen = await show(node);
    await expect.element(screen.getByText("Before signing: what is open")).toBeVisible();
    expect(screen.getByLabelText("Your password").elements()).toEqual([]);
  });
});
