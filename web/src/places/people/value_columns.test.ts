import { describe, expect, it } from "vitest";
import type { Catalogue } from "../../api/catalogue";
import { rolesOf, roleTyped, saysOf } from "./value_columns";

const measure = (code: string, label: string, per_side = true) => ({ code, label, per_side });
const catalogue = {
  tests: [
    { code: "a.leg", name: "Leg", sides: "each", key: null, measures: [measure("angle", "angle")] },
    {
      code: "a.walk",
      name: "Walk",
      sides: "both",
      key: null,
      measures: [measure("steps", "steps", false)],
    },
    { code: "a.toes", name: "Toes", sides: "each", key: "toe", measures: [measure("toe", "toe")] },
  ],
} as unknown as Catalogue;
const plain = [{ role: "ignore", says: "left out" }];

describe("what a column can become", () => {
  const roles = rolesOf(catalogue, plain);

  it("names each value on its sides, and nothing that needs a key beside it", () => {
    expect(roles.map(({ role }) => role)).toEqual([
      "ignore",
      "a.leg/angle/left",
      "a.leg/angle/right",
      "a.walk/steps",
    ]);
  });

  it("is found by code or by words, and kept as typed where it is neither", () => {
    expect(roleTyped("leg, angle, Left", roles)).toBe("a.leg/angle/left");
    expect(roleTyped(" a.walk/steps ", roles)).toBe("a.walk/steps");
    expect(roleTyped("shoe", roles)).toBe("shoe");
    expect(saysOf("a.walk/steps", roles)).toBe("Walk, steps");
    expect(saysOf("shoe", roles)).toBeNull();
  });
});
