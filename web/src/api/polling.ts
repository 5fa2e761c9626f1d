// Work that comes again and again: one turn at a time, and none that never ends.

/** How long an answer to a question that is asked again anyway is waited for. */
export const POLL_WITHIN_MS = 10_000;

/** What leaves `work` when it takes too long, or when whoever asked has gone. */
export const withinPoll = (gone?: AbortSignal): AbortSignal => {
  const late = AbortSignal.timeout(POLL_WITHIN_MS);
  return gone ? AbortSignal.any([gone, late]) : late;
};

/** At once, and again `pauseMs` after each turn has ended, however it ended. Returns how to stop it. */
export function inTurns(
  work: (signal: AbortSignal) => Promise<unknown>,
  pauseMs: number,
  withinMs = POLL_WITHIN_MS,
): () => void {
  const gone = new AbortController();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const turn = async () => {
    const late = new AbortController();
    const limit = setTimeout(() => late.abort(), withinMs);
    const left = new Promise<void>((leave) => {
      late.signal.addEventListener("abort", () => leave());
    });
    try {
      await Promise.race([work(AbortSignal.any([gone.signal, late.signal])), left]);
    } catch {
      // Away: asked again at the next turn.
    } finally {
      clearTimeout(limit);
    }
    if (!gone.signal.aborted) timer = setTimeout(turn, pauseMs);
  };
  void turn();
  return () => {
    gone.abort();
    clearTimeout(timer);
  };
}
