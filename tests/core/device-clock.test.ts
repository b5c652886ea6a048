import { describe, expect, it } from "vitest";
import { clockMoved, happenedBy } from "@/core/field";

const hour = 3_600_000;
const noon = Date.UTC(2026, 5, 1, 12);

describe("a device's clock", () => {
  it("is corrected by how far it was off when it last spoke to the server", () => {
    const years = { serverMs: noon, deviceMs: Date.UTC(2019, 0, 1) };
    expect(happenedBy(years.deviceMs + 5 * hour, years)).toEqual({ ok: true, value: noon + 5 * hour });
    // Some seconds back are how clocks are set; it is no earlier than when they spoke.
    expect(happenedBy(years.deviceMs - 60_000, years)).toEqual({ ok: true, value: noon });
  });
  it("is not believed where it has gone back since, or on by more than anybody stays away", () => {
    const seen = { serverMs: noon, deviceMs: noon };
    for (const at of [noon - 3 * 60_000, noon - 6 * 365 * 24 * hour, noon + 121 * 24 * hour, Number.NaN])
      expect(happenedBy(at, seen)).toMatchObject({ ok: false, error: { kind: "clock-off", seenMs: noon } });
    expect(happenedBy(noon + 119 * 24 * hour, seen).ok).toBe(true);
  });
  it("was moved where it is off by another amount than before: ten minutes are taken for drift", () => {
    const earlier = { serverMs: noon, deviceMs: noon - 4000 };
    const spoke = (offMs: number) => ({ serverMs: noon + 48 * hour, deviceMs: noon + 48 * hour - 4000 + offMs });
    expect(clockMoved(earlier, spoke(9 * 60_000))).toBe(false);
    expect(clockMoved(earlier, spoke(11 * 60_000))).toBe(true);
    expect(clockMoved(earlier, spoke(-3 * 365 * 24 * hour))).toBe(true);
  });
});
