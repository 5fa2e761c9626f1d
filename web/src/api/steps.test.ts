import { describe, expect, it } from "vitest";
import { Problem } from "./problem";
import { lastStep, type Step } from "./steps";

const line = (step: Partial<Step>) => `${JSON.stringify({ done: 0, of: 0, ...step })}\n`;

function stream(...pieces: string[]): ReadableStream<Uint8Array> {
  return new ReadableStream({
    start(controller) {
      for (const piece of pieces) controller.enqueue(new TextEncoder().encode(piece));
      controller.close();
    },
  });
}

describe("an answer in lines", () => {
  it("tells each step and gives the last, however the pieces are cut", async () => {
    const told: number[] = [];
    const whole =
      line({ step: "checking", done: 1, of: 2 }) + line({ step: "checking", done: 2, of: 2 });
    const last = line({ step: "done", done: 2, of: 2 });
    const found = await lastStep(
      stream(whole.slice(0, 9), whole.slice(9), last.slice(0, 4), last.slice(4)),
      (step) => told.push(step.done),
    );
    expect(told).toEqual([1, 2]);
    expect(found.step).toBe("done");
  });

  it("throws what was refused, with its faults", async () => {
    const problem = {
      type: "urn:north-stride:problem:invalid",
      title: "Some values cannot be taken.",
      status: 422,
      faults: [{ path: "text", problem: "This is empty." }],
    } as unknown as NonNullable<Step["problem"]>;
    const refused = lastStep(stream(line({ step: "refused", problem })), () => {});
    await expect(refused).rejects.toMatchObject({ code: "invalid", faults: problem.faults });
  });

  it("is no answer where it breaks off", async () => {
    const broken = lastStep(stream(line({ step: "checking" })), () => {});
    await expect(broken).rejects.toBeInstanceOf(Problem);
  });
});
