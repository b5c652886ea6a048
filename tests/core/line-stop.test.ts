import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { afterStop, judgeStop, passagesFromSpeed } from "@/core/line";
import { valueOrThrow } from "@/core/result";

const washer = [
  { stage: "clean", fromM: 0, lengthM: 2.4 },
  { stage: "conversion", fromM: 3.6, lengthM: 1.8 },
  { stage: "rinse", fromM: 6.6, lengthM: 1.2 },
  { stage: "dry-off", fromM: 9, lengthM: 12 },
];
// At 1.2 m/min: clean 0–120 s, conversion 180–270 s, rinse 330–390 s, dry-off 450–1050 s.
const passages = valueOrThrow(passagesFromSpeed(0, 1.2, washer));
const stopped = (fromS: number, minutes: number) =>
  valueOrThrow(afterStop(passages, { fromMs: fromS * 1000, toMs: fromS * 1000 + minutes * 60_000 }));

describe("a stop of the line", () => {
  test("in the conversion: contact grows by the stop, what came before stays, what follows is later", () => {
    const found = stopped(200, 10);
    expect(found).toMatchObject({ at: { where: "in-stage", stage: "conversion" }, seconds: 690, withoutStopS: 90 });
    expect(found?.passages.map((p) => [p.enteredMs / 1000, p.leftMs / 1000])).toEqual([
      [0, 120],
      [180, 870],
      [930, 990],
      [1050, 1650],
    ]);
  });
  test("between conversion and rinse: wet for the way plus the stop", () => {
    expect(stopped(300, 5)).toMatchObject({
      at: { where: "between", after: "conversion", before: "rinse" },
      seconds: 360,
      withoutStopS: 60,
    });
  });
  test("at the very moment it enters, it is in; at the moment it leaves, it is out of the stage", () => {
    expect(stopped(180, 1)?.at).toEqual({ where: "in-stage", stage: "conversion" });
    expect(stopped(270, 1)?.at).toEqual({ where: "between", after: "conversion", before: "rinse" });
  });
  test("before it entered or after it left, nothing happened to it", () => {
    expect(stopped(-1, 5)).toBeNull();
    expect(stopped(1050, 5)).toBeNull();
  });
  test("an end before its start, or longer than a day, is no stop; a rack without passages has no place", () => {
    for (const toMs of [0, -5, 25 * 3_600_000])
      expect(afterStop(passages, { fromMs: 0, toMs })).toMatchObject({ error: { kind: "bad-stop" } });
    expect(afterStop([], { fromMs: 0, toMs: 5 })).toMatchObject({ error: { kind: "no-stages" } });
  });
  test("no time is lost or made: everything after the stop is later by just the stop, and the order holds", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1049 }), fc.integer({ min: 1, max: 600 }), (fromS, minutes) => {
        const found = stopped(fromS, minutes);
        const times = found?.passages.flatMap((p) => [p.enteredMs, p.leftMs]) ?? [];
        const before = passages.flatMap((p) => [p.enteredMs, p.leftMs]);
        for (const [i, was] of before.entries())
          expect(times[i]).toBe(was > fromS * 1000 ? was + minutes * 60_000 : was);
        expect([...times].sort((a, b) => a - b)).toEqual(times);
        expect((found?.seconds ?? 0) - (found?.withoutStopS ?? 0)).toBeCloseTo(minutes * 60, 9);
      }),
    );
  });
  test("two stops after one another add up", () => {
    const once = stopped(200, 10);
    const again = valueOrThrow(afterStop(once?.passages ?? [], { fromMs: 850_000, toMs: 850_000 + 60_000 }));
    expect(again).toMatchObject({ at: { where: "in-stage", stage: "conversion" }, seconds: 750 });
  });
});

describe("what it did", () => {
  const limits = { contactS: [60, 120] as const, wetLimitS: 180, dryStages: ["dry-off"] };
  const between = (seconds: number, after = "conversion") =>
    judgeStop({ at: { where: "between", after, before: "rinse" }, seconds }, limits);
  test("wet metal: in up to eight tenths of the limit, then to watch, out beyond", () => {
    expect([between(100), between(150), between(180), between(181)]).toEqual(["in", "watch", "watch", "out"]);
  });
  test("past the dryer it is not wet, and inside it a stop does no harm", () => {
    expect(between(9000, "dry-off")).toBe("in");
    expect(judgeStop({ at: { where: "in-stage", stage: "dry-off" }, seconds: 9000 }, limits)).toBe("in");
  });
  test("contact against its window; without one it is not known", () => {
    const inside = (seconds: number, contactS: readonly [number, number] | null = [60, 120]) =>
      judgeStop({ at: { where: "in-stage", stage: "conversion" }, seconds }, { ...limits, contactS });
    expect([inside(90), inside(121), inside(59)]).toEqual(["in", "out", "out"]);
    expect(inside(90, null)).toBe("unknown");
  });
});
