// How much a sign can say, as rungs: from the floor up for a positive, down for a negative.
import type { Schema } from "../../api/client";

export type Sign = Schema["SignOut"];
type Word = Sign["least"];

const RUNGS: Record<Word, number> = {
  "a lot": 3,
  some: 2,
  "a little": 1,
  hardly: 0,
  "no use shown": 0,
};

export interface Rungs {
  up: boolean;
  /** Sure by the least favourable study. */
  solid: number;
  /** Reached by the most favourable one. */
  reached: number;
}

export const rungsOf = ({
  result,
  least,
  most,
}: Pick<Sign, "result" | "least" | "most">): Rungs => ({
  up: result === "positive",
  solid: Math.min(RUNGS[least], RUNGS[most]),
  reached: Math.max(RUNGS[least], RUNGS[most]),
});

/** "a little more likely, at most a lot", or that no use was shown. */
export function ratioWords({
  result,
  least,
  most,
}: Pick<Sign, "result" | "least" | "most">): string {
  if (least === "no use shown") return "no use shown";
  const way = result === "positive" ? "more likely" : "less likely";
  return least === most ? `${least} ${way}` : `${least} ${way}, at most ${most}`;
}

/** Where a starting probability could move by the sign that counts: "20 % → 31 to 58 %". */
export function movedWords({ probability }: Pick<Sign, "probability">): string | null {
  if (!probability) return null;
  const percent = (share: number) => Math.round(share * 100);
  const [low, high] = [percent(probability.low), percent(probability.high)];
  const to = low === high ? `${low} %` : `${low} to ${high} %`;
  return `${percent(probability.start)} % → ${to}`;
}
