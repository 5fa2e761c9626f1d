// What was asked for before there was a page to ask for it: its first reader takes it, later ones ask anew.
const asked = new Map<string, Promise<unknown>>();

export function askEarly(name: string, ask: () => Promise<unknown>): void {
  const answer = ask();
  // Whoever takes it hears of it.
  answer.catch(() => undefined);
  asked.set(name, answer);
}

export function early<T>(name: string, ask: () => Promise<T>): Promise<T> {
  const answer = asked.get(name) as Promise<T> | undefined;
  asked.delete(name);
  return answer ?? ask();
}
