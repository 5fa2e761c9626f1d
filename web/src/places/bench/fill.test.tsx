import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { page } from "vitest/browser";
import type { Catalogue } from "../../api/catalogue";
import { placeOf } from "../../state/domain/fields";
import { stepsFor } from "../../state/domain/questions";
import { benchOf, screenOf, TESTS } from "../../testing/bench";
import { fill } from "../../testing/filling";
import { json, serve } from "../../testing/server";
import { show } from "../../testing/show";
import layout from "./layout.module.css";
import { TestBench } from "./TestBench";

const schools = { trial_value: "mean", thomas: "degrees" };
const catalogue = { tests: TESTS, sites: {}, flag_names: {}, gates: {} } as unknown as Catalogue;
const SIZES = [
  ["at the desk", 1280, 800],
  ["on a phone", 390, 844],
] as const;

describe.each(SIZES)("every measure and key of a test, %s", (_where, width, height) => {
  beforeEach(async () => {
    serve(() => json([]));
    await page.viewport(width, height);
  });
  afterEach(() => vi.unstubAllGlobals());

  it.each(TESTS.map((test) => [test.code, test] as const))(
    "%s leaves the bench as it was entered, and nothing besides",
    async (_code, test) => {
      const { bench } = benchOf();
      const screen = screenOf([], { schools, first_side: "left" });
      await show(
        <div className={layout.bench}>
          <TestBench
            bench={bench}
            test={test}
            lying={null}
            screen={screen}
            catalogue={catalogue}
            tests={[test]}
            next={null}
            onStop={() => {}}
          />
        </div>,
      );
      const written = await fill(test, stepsFor(test, schools as never));
      expect(written.size).toBeGreaterThan(0);
      const { fields, waiting } = bench.state.getState();
      const names = [...new Set([...fields.keys(), ...waiting.keys()])];
      const held = names
        .map((name) => [name, bench.value(placeOf(name))] as const)
        .filter(([, value]) => value !== null);
      expect(Object.fromEntries(held)).toEqual(Object.fromEntries(written));
    },
  );
});
