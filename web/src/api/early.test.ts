import { describe, expect, it, vi } from "vitest";
import { askEarly, early } from "./early";

describe("what was asked for early", () => {
  it("is taken once by its first reader, and asked anew by every later one", async () => {
    const ask = vi.fn(async () => "now");
    askEarly("entry", async () => "early");
    expect(await early("entry", ask)).toBe("early");
    expect(ask).not.toHaveBeenCalled();
    expect(await early("entry", ask)).toBe("now");
  });

  it("is nobody else's: another name asks for itself", async () => {
    askEarly("screen a", async () => "a");
    expect(await early("screen b", async () => "b")).toBe("b");
  });

  it("tells its reader where it failed, and troubles nobody where none comes", async () => {
    askEarly("gone", () => Promise.reject(new Error("away")));
    askEarly("unread", () => Promise.reject(new Error("away")));
    await expect(early("gone", async () => "now")).rejects.toThrow("away");
    expect(await early("gone", async () => "now")).toBe("now");
  });
});
