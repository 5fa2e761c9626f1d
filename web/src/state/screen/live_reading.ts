// One question at a time: a newer one ends an older one.
import { Problem } from "../../api/problem";
import type { Answer, Preview } from "../../api/screens";

export type AskPreview = (answers: Answer[], signal: AbortSignal) => Promise<Preview>;

const AGAIN_MS = 2000;
/** What fails there fails again: somebody is to hear of it. */
const MOST_FAILURES = 3;

export class LiveReading {
  private asking: AbortController | null = null;

  constructor(private readonly askPreview: AskPreview) {}

  /**
   * Asked again while the server is away: a hand that has nothing more to write still waits for it.
   * Null where a newer question overtook this one; a problem where the server cannot read it.
   */
  async ask(answers: Answer[]): Promise<Preview | Problem | null> {
    this.asking?.abort();
    this.asking = new AbortController();
    const { signal } = this.asking;
    let failures = 0;
    while (!signal.aborted) {
      try {
        const found = await this.askPreview(answers, signal);
        return signal.aborted ? null : found;
      } catch (error) {
        if (!(error instanceof Problem)) return null;
        if (error.code === "unexpected") failures += 1;
        if (!error.passing || failures >= MOST_FAILURES) return signal.aborted ? null : error;
        await pause(signal);
      }
    }
    return null;
  }

  stop(): void {
    this.asking?.abort();
  }
}

/** A while, or until it is overtaken. */
function pause(signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    const timer = setTimeout(resolve, AGAIN_MS);
    signal.addEventListener("abort", () => {
      clearTimeout(timer);
      resolve();
    });
  });
}
