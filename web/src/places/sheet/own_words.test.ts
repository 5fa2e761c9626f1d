import { describe, expect, it } from "vitest";
import { memory } from "../../state/device/memory";
import { SheetWords } from "./own_words";

const owner = { clinic: "c", user: "u" };

describe("words of one's own", () => {
  it("stay on the device until the server has them", () => {
    const keep = memory();
    const words = new SheetWords(keep, owner, "s");
    const typed = words.type("letter", "last", "Call us.");
    expect(new SheetWords(keep, owner, "s").at("letter", "last")?.value).toBe("Call us.");
    expect(words.waiting).toBe(1);
    words.settle("letter", "last", typed.id);
    expect([words.at("letter", "last"), words.waiting]).toEqual([null, 0]);
  });

  it("are another writing where another text is typed, and an old answer settles none of it", () => {
    const words = new SheetWords(memory(), owner, "s");
    const first = words.type("letter", "last", "Call");
    const second = words.type("letter", "last", "Call us.");
    expect(second.id).not.toBe(first.id);
    words.settle("letter", "last", first.id);
    words.refuse("letter", "last", first, "too long");
    expect(words.at("letter", "last")).toEqual(second);
    words.refuse("letter", "last", second, "too long");
    expect(words.at("letter", "last")?.problem).toBe("too long");
  });

  it("are each user's and each screen's own", () => {
    const keep = memory();
    new SheetWords(keep, owner, "s").type("letter", "to", "A. Farkas");
    expect(new SheetWords(keep, { clinic: "c", user: "v" }, "s").waiting).toBe(0);
    expect(new SheetWords(keep, owner, "t").at("letter", "to")).toBeNull();
  });
});
