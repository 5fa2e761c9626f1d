import { afterEach, describe, expect, it, vi } from "vitest";
import type { Catalogue } from "../../api/catalogue";
import type { Screen } from "../../api/screens";
import type { Bench } from "../../state/screen/bench";
import { screenOf, TESTS } from "../../testing/bench";
import { json, serve } from "../../testing/server";
import { show } from "../../testing/show";
import { useBench } from "./useBench";

const catalogue = { tests: TESTS } as unknown as Catalogue;
const place = {
  test: "hip.modified_thomas",
  side: "left",
  key: "",
  field: "values.thigh_angle",
} as const;
const of = (id: string): Screen => {
  const screen = screenOf();
  return { ...screen, record: { ...screen.record, id } };
};

const changed = (revision: number, answers: object[] = []) => ({
  revision,
  state: "open",
  head: null,
  clashes: [],
  others: [],
  answers,
});

const answers = (asked: { path: string }) => {
  if (asked.path.endsWith("/answers"))
    return json({ revision: 3, late: [], beside: [], skew_seconds: null });
  return asked.path.endsWith("/preview")
    ? json({ revision: 1, reading: { flags: [], differences: [] }, faults: [] })
    : null;
};

function Place({
  id,
  screen,
  given,
}: {
  id: string;
  screen?: Screen;
  given: (bench: Bench | null) => void;
}) {
  given(useBench(id, screen, screen ? catalogue : undefined));
  return null;
}

function lastOf(seen: (Bench | null)[]): Bench {
  const bench = seen.at(-1);
  if (!bench) throw new Error("there is no bench yet");
  return bench;
}

async function opened(id: string) {
  const seen: (Bench | null)[] = [];
  const screen = await show(<Place id={id} screen={of(id)} given={(bench) => seen.push(bench)} />);
  await vi.waitFor(() => lastOf(seen));
  return { bench: lastOf(seen), screen };
}

describe("the bench of a screen", () => {
  afterEach(() => vi.unstubAllGlobals());

  it("is there once the screen is known, and not before", async () => {
    serve((asked) => answers(asked) ?? json(changed(1)));
    const seen: (Bench | null)[] = [];
    const given = (bench: Bench | null) => seen.push(bench);
    const screen = await show(<Place id="one" given={given} />);
    expect(seen.every((bench) => bench === null)).toBe(true);
    await screen.rerender(<Place id="one" screen={of("one")} given={given} />);
    await vi.waitFor(() => lastOf(seen));
  });

  it("goes on from place to place with what is in the hand", async () => {
    serve((asked) => answers(asked) ?? json(changed(1)));
    const first = await opened("two");
    first.bench.type(place, "8", null);
    await first.screen.unmount();
    const second = await opened("two");
    expect(second.bench).toBe(first.bench);
    expect(second.bench.draft(place).text).toBe("8");
  });

  it("is another one for another screen", async () => {
    serve((asked) => answers(asked) ?? json(changed(1)));
    const first = await opened("three");
    await first.screen.unmount();
    expect((await opened("four")).bench).not.toBe(first.bench);
  });

  it("shows what another writes while it is looked at", async () => {
    let revision = 1;
    const other = {
      id: "x",
      revision: 2,
      by: "B.",
      at: "2026-09-14T10:00:00Z",
      value: -12,
      ...place,
    };
    const asked = serve(
      (one) =>
        answers(one) ??
        (one.path.endsWith("/changes")
          ? json(changed(revision, revision > 1 ? [other] : []))
          : null),
    );
    const { bench } = await opened("five");
    expect(bench.value(place)).toBeNull();
    revision = 2;
    await vi.waitFor(() => expect(bench.value(place)).toBe(-12), { timeout: 5000 });
    expect(asked.some(({ path }) => path === "/api/screens/five/changes")).toBe(true);
  });
});
