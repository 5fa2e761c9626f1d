// Values by key in memory, with the keys of each owner's kind together: what is asked for is not looked
// for among everything else.
const GROUP_PARTS = 4;

const groupOf = (key: string): string => key.split("/", GROUP_PARTS).join("/");

export class KeyIndex {
  private readonly values = new Map<string, string>();
  private readonly groups = new Map<string, Set<string>>();

  get(key: string): string | null {
    return this.values.get(key) ?? null;
  }

  set(key: string, value: string): void {
    if (!this.values.has(key)) {
      const group = this.groups.get(groupOf(key)) ?? new Set();
      this.groups.set(groupOf(key), group.add(key));
    }
    this.values.set(key, value);
  }

  delete(key: string): boolean {
    this.groups.get(groupOf(key))?.delete(key);
    return this.values.delete(key);
  }

  /** Keys that begin so, in their order. */
  under(prefix: string): string[] {
    const group = prefix.split("/").length > GROUP_PARTS ? this.groups.get(groupOf(prefix)) : null;
    return [...(group ?? this.values.keys())].filter((key) => key.startsWith(prefix)).sort();
  }
}
