import { describe, expect, it } from "vitest";
import { countMarks, gathered } from "./archive";

const bytes = (text: string) => new TextEncoder().encode(text);

function streamed(...pieces: string[]): ReadableStream<Uint8Array> {
  return new ReadableStream({
    start(controller) {
      for (const piece of pieces) controller.enqueue(bytes(piece));
      controller.close();
    },
  });
}

describe("an archive as it comes", () => {
  it("counts a mark that two pieces share, and none that only begins", () => {
    expect(countMarks(bytes("aPK\u0003\u0004bPPK\u0003\u0004"), 0)).toEqual({
      count: 2,
      matched: 0,
    });
    expect(countMarks(bytes("PK\u0003"), 0)).toEqual({ count: 0, matched: 3 });
    expect(countMarks(bytes("\u0004"), 3)).toEqual({ count: 1, matched: 0 });
    expect(countMarks(bytes("PK\u0001\u0002"), 0).count).toBe(0);
  });

  it("is whole, and told as it grows", async () => {
    const told: number[] = [];
    const whole = await gathered(streamed("PK\u0003\u0004one", "PK\u0003", "\u0004two"), (begun) =>
      told.push(begun),
    );
    expect(await whole.text()).toBe("PK\u0003\u0004onePK\u0003\u0004two");
    expect(told).toEqual([1, 1, 2]);
  });
});
