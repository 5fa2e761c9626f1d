import type { Step } from "../api/catalogue";
import type { Schema } from "../api/client";

type HandDoes = Schema["Hand"]["does"];

const HAND_WORDS: Record<HandDoes, string> = {
  hold: "ring: holds",
  feel: "dot: feels",
  press: "arrow: pushes",
  tap: "star: taps",
  self: "coloured arrow: the athlete",
};

/** What the marks on the set-up picture mean, as far as they are there. */
export function HandsLegend({ hands }: { hands: NonNullable<Step["figure"]>["hands"] }) {
  const words = [...new Set(hands.map((hand) => HAND_WORDS[hand.does]))];
  if (hands.some((hand) => hand.way && hand.does !== "press" && hand.does !== "self")) {
    words.push("arrow: pushes");
  }
  if (hands.some((hand) => hand.behind)) words.push("dashed: underneath");
  return <span className="muted small">{[...new Set(words)].join(" · ")}</span>;
}
