import { describe, expect, it } from "vitest";
import {
  type Before,
  type Call,
  callFor,
  type Level,
  levelAfter,
  planFor,
  resultsThatSettle,
  type TestPlanLine,
  type TestPlanScope,
  usualSwitching,
} from "@/core/test-plan";

const good = (n: number) => Array.from({ length: n }, () => true);

describe("switching", () => {
  it("begins normal, tightens at the first failure, comes back after five good, eases after ten more", () => {
    expect(levelAfter([], usualSwitching)).toEqual({ level: "normal", good: 0 });
    expect(levelAfter([...good(3), false], usualSwitching)).toEqual({ level: "tightened", good: 0 });
    expect(levelAfter([false, ...good(4)], usualSwitching)).toEqual({ level: "tightened", good: 4 });
    expect(levelAfter([false, ...good(5)], usualSwitching)).toEqual({ level: "normal", good: 0 });
    expect(levelAfter([false, ...good(15)], usualSwitching)).toEqual({ level: "eased", good: 0 });
    expect(levelAfter(good(10), usualSwitching).level).toBe("eased");
  });
  it("tightens at once from eased, and one failure on the way back begins the count anew", () => {
    expect(levelAfter([...good(12), false], usualSwitching).level).toBe("tightened");
    expect(levelAfter([false, ...good(4), false, ...good(4)], usualSwitching)).toEqual({ level: "tightened", good: 4 });
  });
  it("never eases where nothing is eased", () => {
    expect(levelAfter(good(200), { backAfter: 5, easeAfter: null }).level).toBe("normal");
  });
  it("is settled by so many of the newest results, whatever came before", () => {
    let seed = 7;
    const random = () => {
      seed = (seed * 16807) % 2147483647;
      return seed / 2147483647;
    };
    for (const rule of [usualSwitching, { backAfter: 2, easeAfter: 3 }, { backAfter: 4, easeAfter: null }])
      for (let run = 0; run < 200; run++) {
        const all = Array.from({ length: 60 }, () => random() > 0.08);
        const tail = all.slice(-resultsThatSettle(rule));
        expect(levelAfter(tail, rule).level).toBe(levelAfter(all, rule).level);
      }
  });
});

/** Racks in order through one line of a plan; the units and keys are kept as the server keeps them. */
function through(line: TestPlanLine, racks: readonly (string | null)[], level: Level = "normal"): Call[] {
  const calls: { key: string | null; call: Call }[] = [];
  return racks.map((key, i) => {
    const ofKey = calls.find((c) => c.key !== null && c.key === key)?.call.unit ?? null;
    const unit = calls.findLast((c) => !c.call.unit.startsWith("rack:"))?.call.unit ?? null;
    const inIt = calls.filter((c) => c.call.unit === unit);
    const before: Before = {
      ofKey,
      last: unit === null ? null : { unit, racks: inIt.length, keys: new Set(inIt.map((c) => c.key)).size },
    };
    const call = callFor(line, level, { id: `r${i}`, key, again: false }, before);
    calls.push({ key, call });
    return call;
  });
}
const line = (every: TestPlanLine["every"], n: number | null = null, first = false): TestPlanLine => ({
  test: "adhesion",
  every,
  n,
  first,
});
const asked = (calls: readonly Call[]) => calls.map((c) => c.asked);

describe("which rack is asked", () => {
  it("is every one at the tightened level, whatever the plan", () => {
    expect(asked(through(line("lot"), ["a", "a", "a"], "tightened"))).toEqual([true, true, true]);
    expect(asked(through(line("nth", 10), [null, null], "tightened"))).toEqual([true, true]);
  });
  it("is the first of every four, the rest stands by it", () => {
    const calls = through(
      line("nth", 4),
      Array.from({ length: 9 }, () => null),
    );
    expect(asked(calls)).toEqual([true, false, false, false, true, false, false, false, true]);
    expect(calls[3]?.unit).toBe("run:r0");
    expect(calls[5]?.unit).toBe("run:r4");
  });
  it("is the first of every eight when eased", () => {
    const calls = through(
      line("nth", 4),
      Array.from({ length: 9 }, () => null),
      "eased",
    );
    expect(asked(calls)).toEqual([true, false, false, false, false, false, false, false, true]);
  });
  it("is the first of each lot, also where lots take turns", () => {
    const calls = through(line("lot"), ["a", "b", "a", "b", "c"]);
    expect(asked(calls)).toEqual([true, true, false, false, true]);
    expect(calls[2]?.unit).toBe("lot:a");
    expect(calls[3]?.unit).toBe("lot:b");
  });
  it("is the first of every second lot when eased, and of each where the rest waits for it", () => {
    const calls = through(line("lot"), ["a", "b", "c", "d", "b"], "eased");
    expect(asked(calls)).toEqual([true, false, true, false, false]);
    expect(calls[1]).toEqual({ asked: false, unit: "lot:a", why: "joined-to-last" });
    expect(calls[4]?.unit).toBe("lot:a");
    expect(asked(through(line("lot", null, true), ["a", "b", "c"], "eased"))).toEqual([true, true, true]);
  });
  it("is one whose lot nobody put on record, and one that was coated again", () => {
    expect(through(line("lot"), [null])[0]).toEqual({ asked: true, unit: "rack:r0", why: "unit-not-known" });
    const before: Before = { ofKey: "lot:a", last: { unit: "lot:a", racks: 3, keys: 1 } };
    expect(callFor(line("lot"), "normal", { id: "x", key: "a", again: true }, before).why).toBe("coated-again");
  });
});

describe("the plan for a rack", () => {
  const none: TestPlanScope = { customer: null, part: null, job: null, exposure: [] };
  const plan = (code: string, scope: Partial<TestPlanScope>) => ({ code, data: { scope: { ...none, ...scope } } });
  const rack = { customer: "c1", part: "p1", job: "J-1", exposure: ["coast"] };
  it("is the closest of those that meet it", () => {
    const all = [
      plan("T4", { customer: "c1" }),
      plan("T1", {}),
      plan("T2", { part: "p1" }),
      plan("T3", { job: "J-2" }),
      plan("T5", { exposure: ["coast", "salt"] }),
    ];
    expect(planFor(all, rack)?.code).toBe("T2");
    expect(planFor(all, { ...rack, part: "p2" })?.code).toBe("T4");
    expect(planFor(all, { ...rack, part: "p2", customer: "c2" })?.code).toBe("T5");
    expect(planFor(all, { customer: "c2", part: "p2", job: "J-2", exposure: [] })?.code).toBe("T3");
    expect(planFor(all.slice(0, 1), { ...rack, customer: "c2" })).toBeNull();
  });
  it("is the first by code of equals", () => {
    expect(planFor([plan("T9", { part: "p1" }), plan("T2", { part: "p1" })], rack)?.code).toBe("T2");
  });
});
