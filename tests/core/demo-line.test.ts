import { describe, expect, test } from "vitest";
import { demoLine, recoatedRack } from "@/demo/demo-line";

const DAY = 86_400_000;
const HOUR = 3_600_000;
const anchors = Array.from({ length: 7 }, (_, day) =>
  [0.3, 6.1, 9, 13.4, 19.6, 23.9].map((hour) => new Date(Date.UTC(2026, 10, 23) + day * DAY + hour * HOUR)),
).flat();

describe("the demo's stories, on whatever day and hour it is loaded", () => {
  test.each(anchors.map((a) => [a.toISOString(), a] as const))("%s", (_, anchor) => {
    const line = demoLine(anchor);
    const { racks } = line;
    // Story 3: lifted in the days of the wrong drum, and hardly ever else.
    const lifted = racks.filter((r) => (r.crossCut?.squaresLost ?? 0) > 1);
    expect(lifted.length).toBeGreaterThan(8);
    for (const rack of lifted) expect(rack.truth.conversionPh, rack.number).toBeGreaterThan(5.75);
    // Story 2: castings at night without their outgassing bake.
    const pinholed = racks.filter((r) => (r.pinholes?.pieces ?? 0) > 1);
    expect(pinholed.length).toBeGreaterThan(1);
    for (const rack of pinholed) expect(rack.prep.find((p) => p.step === "prebake")).toMatchObject({ done: false });
    // Story 6: steel, on a Monday, behind a stop; each has its stop on record.
    const rusty = racks.filter((r) => r.flashRust);
    expect(rusty.length).toBeGreaterThan(1);
    for (const rack of rusty) {
      expect(new Date(rack.hungMs).getUTCDay()).toBe(1);
      const conversion = rack.passages.find((p) => p.stage === "conversion");
      const rinse = rack.passages.find((p) => p.stage === "rinse");
      expect(line.stops.some((s) => s.fromMs >= (conversion?.leftMs ?? 0) && s.toMs <= (rinse?.enteredMs ?? 0))).toBe(
        true,
      );
    }
    // Story 7: tube frames in wet weather, and sound ones between.
    const frames = racks.filter((r) => r.product === "GREENHOUSE-FRAME" && r.film);
    const blistered = frames.filter((r) => r.blisters);
    expect(blistered.length).toBeGreaterThan(1);
    expect(frames.length).toBeGreaterThan(blistered.length + 2);
    for (const rack of frames) expect(rack.dryOff?.hollowBlown).toBe(!rack.blisters);
    expect(recoatedRack(line, anchor)).toBeDefined();
  });
  test("an earlier hour of the same day tells the same past", () => {
    const [early, late] = [7, 15].map((h) => demoLine(new Date(Date.UTC(2026, 10, 25, h))));
    const until = Date.UTC(2026, 10, 24);
    const past = (line: ReturnType<typeof demoLine> | undefined) =>
      (line?.racks ?? [])
        .filter((r) => r.hungMs < until && Number(r.number) >= 942)
        .map((r) => [r.number, r.product, r.crossCut?.squaresLost, r.film?.readings[0]?.valueUm]);
    expect(past(early)).toEqual(past(late));
    expect(past(early).length).toBeGreaterThan(80);
  });
});
