/**
 * What this device's clock says, at sending. It cannot be before what it wrote: then it was set back since,
 * and what is newest counts as written now.
 */
export const clockFor = (
  answers: readonly { at?: string | null }[],
  now: number = Date.now(),
): string =>
  new Date(
    Math.max(now, ...answers.map(({ at }) => (at ? Date.parse(at) : Number.NEGATIVE_INFINITY))),
  ).toISOString();
