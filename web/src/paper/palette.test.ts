import { describe, expect, it } from "vitest";
import style from "../theme/figure.css?raw";
import { onPaper } from "./palette";

const DRAWINGS = import.meta.glob<string>("../maps/drawings/*.svg", {
  query: "?raw",
  import: "default",
  eager: true,
});

describe("the colours of paper", () => {
  it("cover all that figures and maps are drawn with", () => {
    const drawn = [style, ...Object.values(DRAWINGS)];
    expect(drawn.length).toBeGreaterThan(20);
    for (const each of drawn) expect(onPaper(each)).not.toContain("var(");
  });

  it("refuse a colour nobody chose", () => {
    expect(() => onPaper("fill: var(--mauve)")).toThrow("mauve");
  });
});
