/** Made when it is first asked for: the language tables behind dates alone cost what half a place costs. */
export function lazily<T>(make: () => T): () => T {
  let made: { it: T } | null = null;
  return () => {
    made ??= { it: make() };
    return made.it;
  };
}
