// How far along a screen's path one has been on this page: it is drawn, and nothing hangs on it.
const farthest = new Map<string, number>();

export function reachedStep(screen: string, step: number): void {
  farthest.set(screen, Math.max(step, furthestStep(screen)));
}

export const furthestStep = (screen: string): number => farthest.get(screen) ?? -1;
