import { describe, expect, it } from "vitest";
import { useStore } from "../../components/base/useStore";
import type { Bench } from "../../state/screen/bench";
import { factAt, factsOf } from "../../state/screen/story";
import { benchOf, screenOf } from "../../testing/bench";
import { CATALOGUE } from "../../testing/readings";
import { json, serve } from "../../testing/server";
import { show } from "../../testing/show";
import { SquadQuestions } from "./SquadQuestions";

function Asked({ bench }: { bench: Bench }) {
  const facts = factsOf(useStore(bench.state));
  return (
    <SquadQuestions
      bench={bench}
      catalogue={CATALOGUE}
      screen={screenOf([], { athlete: { id: "a", name: "Ilse Varga" } })}
      facts={facts}
      told={{ regions: [], sites: [] } as never}
      reading={null}
    />
  );
}

async function squad() {
  serve(() => json([]));
  const { bench } = benchOf();
  const screen = await show(<Asked bench={bench} />);
  const said = () => {
    const facts = factsOf(bench.state.getState());
    return [factAt(facts, "complaint.region"), factAt(facts, "history.none")];
  };
  return { bench, screen, said };
}

describe("the two questions of a squad", () => {
  it("are open until they are answered; arriving says nothing", async () => {
    const { said, screen } = await squad();
    expect(said()).toEqual([undefined, undefined]);
    for (const plate of screen.getByRole("button", { pressed: true }).all()) {
      throw new Error(`pressed: ${plate.element().textContent}`);
    }
  });

  it("are answered one by one, each by its own no, and taken back by the same", async () => {
    const { said, screen } = await squad();
    const pain = screen.getByRole("group", { name: "Any pain today?" });
    await pain.getByRole("button", { name: "No" }).click();
    expect(said()).toEqual(["none", undefined]);
    await pain.getByRole("button", { name: "No" }).click();
    expect(said()).toEqual([undefined, undefined]);
    await screen
      .getByRole("group", { name: "Anything new since last time?" })
      .getByRole("button", { name: "No" })
      .click();
    expect(said()).toEqual([undefined, true]);
  });

  it("are both answered by the one plate that says both", async () => {
    const { said, screen } = await squad();
    await screen.getByRole("button", { name: "No pain, nothing new: begin" }).click();
    expect(said()).toEqual(["none", true]);
  });

  it("write nothing for a yes: it opens the part that asks more", async () => {
    const { said, screen } = await squad();
    const pain = screen.getByRole("group", { name: "Any pain today?" });
    await pain.getByRole("button", { name: "Yes" }).click();
    expect(said()).toEqual([undefined, undefined]);
  });
});
