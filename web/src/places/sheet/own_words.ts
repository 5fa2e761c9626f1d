// Words somebody puts in the place of ours on a sheet: kept on the device until the server has them.
import { type Keep, type Owner, ownPrefix, readJson } from "../../state/device/keep";

export interface TypedWords {
  /** Names this writing: sent again, it is written once. */
  id: string;
  value: string;
  /** Why it was not taken, in the server's words. */
  problem: string | null;
}

/** What is typed for the sheets of one screen, by sheet and field. */
export class SheetWords {
  private readonly prefix: string;

  constructor(
    private readonly keep: Keep,
    owner: Owner,
    screen: string,
  ) {
    this.prefix = `${ownPrefix("words", owner)}${screen}/`;
  }

  at(sheet: string, field: string): TypedWords | null {
    return readJson<TypedWords>(this.keep, this.key(sheet, field));
  }

  /** Another text is another writing. */
  type(sheet: string, field: string, value: string): TypedWords {
    const typed = { id: crypto.randomUUID(), value, problem: null };
    this.keep.setItem(this.key(sheet, field), JSON.stringify(typed));
    return typed;
  }

  refuse(sheet: string, field: string, typed: TypedWords, problem: string): void {
    if (this.at(sheet, field)?.id !== typed.id) return;
    this.keep.setItem(this.key(sheet, field), JSON.stringify({ ...typed, problem }));
  }

  /** The server has it, unless more was typed since. */
  settle(sheet: string, field: string, id: string): void {
    if (this.at(sheet, field)?.id === id) this.keep.removeItem(this.key(sheet, field));
  }

  drop(sheet: string, field: string): void {
    this.keep.removeItem(this.key(sheet, field));
  }

  get waiting(): number {
    return this.keep.under(this.prefix).length;
  }

  private key(sheet: string, field: string): string {
    return `${this.prefix}${sheet}/${field}`;
  }
}
