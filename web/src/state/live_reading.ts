// One question at a time: a newer one ends an older one.
import type { Answer, Preview } from "../api/screens";

export type AskPreview = (answers: Answer[], signal: AbortSignal) => Promise<Preview>;

export class LiveReading {
  private asking: AbortController | null = null;

  constructor(private readonly askPreview: AskPreview) {}

  /** Null where the server is away or a newer question overtook this one. */
  async ask(answers: Answer[]): Promise<Preview | null> {
    this.asking?.abort();
    const asking = new AbortController();
    this.asking = asking;
    try {
      const found = await this.askPreview(answers, asking.signal);
      return asking.signal.aborted ? null : found;
    } catch {
      return null;
    }
  }

  stop(): void {
    this.asking?.abort();
  }
}
