// What the server refuses, and that it may not answer at all.
export interface Fault {
  path: string;
  problem: string;
}

/** A refusal of the server, or no answer at all (`status` 0). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    title: string,
    readonly faults: Fault[] = [],
    /** Of a reading that is no longer the one that was shown: the parts that changed. */
    readonly changed: string[] = [],
  ) {
    super(title);
  }

  /** Worth trying again by itself: the server is away or in trouble. */
  get passing(): boolean {
    return this.status === 0 || this.status === 408 || this.status >= 500;
  }
}
