import { describe, expect, it } from "vitest";
import { lateWords } from "../domain/audit";
import { skewWords } from "./saving";

describe("what is said of a clock", () => {
  it("is which way it is off, and by how much", () => {
    expect(skewWords(180)).toBe("this device's clock is 3 min behind");
    expect(skewWords(-180)).toBe("this device's clock is 3 min ahead");
    expect(skewWords(-7200)).toBe("this device's clock is 2 h ahead");
  });

  it("leaves the day out where that is today in the clinic's zone", () => {
    const at = "2026-11-29T22:30:00Z";
    const late = new Date("2026-11-30T20:00:00Z");
    expect(lateWords(at, "Europe/Helsinki", late)).toBe("00:30:00");
    expect(lateWords(at, "UTC", late)).toBe("29 Nov 2026, 22:30:00");
  });
});
