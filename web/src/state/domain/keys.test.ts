import { describe, expect, it } from "vitest";
import keys from "../../../../docs/keys.md?raw";
import { benchKey, KEY_HELP } from "./keys";

const press = (
  key: string,
  more: Partial<Record<"altKey" | "ctrlKey" | "metaKey", boolean>> = {},
) => benchKey({ key, altKey: false, ctrlKey: false, metaKey: false, ...more });

describe("the key map", () => {
  it("is the one that is written down", () => {
    const listed = KEY_HELP.map(([, key, says]) => `| \`${key}\` | ${says} |`);
    const written = keys.split("\n").filter((line) => line.startsWith("| `"));
    expect(written).toEqual(listed);
  });

  it("hears every key it lists", () => {
    const names: Record<string, string> = { PgDn: "PageDown", PgUp: "PageUp" };
    for (const [code, key] of KEY_HELP) {
      const bare = key.replace("Alt ", "");
      expect(press(names[bare] ?? bare, { altKey: key.startsWith("Alt ") })).toBe(code);
    }
  });

  it("leaves bare letters, arrows and the browser's own keys alone", () => {
    for (const key of ["a", "r", "s", "z", "ArrowLeft", "ArrowUp", " ", "Tab"]) {
      expect(press(key)).toBeNull();
    }
    expect(press("z", { ctrlKey: true })).toBeNull();
    expect(press("PageDown", { metaKey: true })).toBeNull();
  });
});
