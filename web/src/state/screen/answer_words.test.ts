import { describe, expect, it } from "vitest";
import type { Catalogue } from "../../api/catalogue";
import type { Answer } from "../../api/screens";
import { answerWords, askedWords, valueWords } from "./answer_words";

const catalogue = {
  story: { topic: [] },
  tests: [
    {
      code: "made.up",
      measures: [
        { code: "reach", kind: "length", label: "Reach", unit: "mm", one_of: [] },
        { code: "tender", kind: "yes_no", label: "Tender at the bone", one_of: [] },
      ],
    },
  ],
} as unknown as Catalogue;

const told = (field: string, value: unknown, key = ""): Answer => ({
  id: "x",
  test: "made.up",
  side: "left",
  key,
  field,
  value,
  at: null,
});

describe("an answer in words", () => {
  it("says yes and no, never a bare true", () => {
    expect(answerWords(catalogue, told("values.tender", true, "navicular"))).toBe(
      "Tender at the bone, navicular: yes",
    );
    expect(valueWords(catalogue, told("values.tender", false))).toBe("no");
  });

  it("says what was taken back", () => {
    expect(valueWords(catalogue, told("values.tender", null))).toBe("cleared");
  });

  it("says whether it hurt, and where", () => {
    expect(valueWords(catalogue, told("pain", { present: true, site: "groin" }))).toBe(
      "hurts, groin",
    );
    expect(valueWords(catalogue, told("pain", { present: false }))).toBe("no pain");
    expect(askedWords(catalogue, told("pain", null))).toBe("pain");
  });
});
