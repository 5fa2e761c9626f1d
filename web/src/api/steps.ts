// An answer that comes as lines: how far the work is, and what came of it. Giving it up stops the work.
import type { Schema } from "./client";
import { Problem } from "./problem";

export type Step = Schema["StepOut"];

const NOT_TO_THE_END = "The answer broke off. Nothing was taken.";

/** The last line, each before it told. Throws a Problem where it was refused, or did not come to its end. */
export async function lastStep(
  lines: ReadableStream<Uint8Array>,
  onStep: (step: Step) => void,
): Promise<Step> {
  const reader = lines.pipeThrough(new TextDecoderStream() as never).getReader();
  let rest = "";
  for (;;) {
    const { done, value } = await reader.read();
    if (done) throw new Problem(0, "no-server", NOT_TO_THE_END);
    const whole = (rest + String(value)).split("\n");
    rest = whole.pop() ?? "";
    for (const line of whole) {
      const step = JSON.parse(line) as Step;
      if (step.step === "done") return step;
      if (step.problem) throw problemOf(step.problem);
      onStep(step);
    }
  }
}

function problemOf(told: NonNullable<Step["problem"]>): Problem {
  const code = told.type.replace("urn:north-stride:problem:", "");
  return new Problem(told.status, code, told.title, told.faults);
}
