import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  beforeAfter,
  type CoachFacts,
  type Compared,
  coach,
  earthChain,
  judgePreFlight,
  judgeSetting,
  type PreFlightEntry,
  type PreFlightItem,
  type PreFlightLimits,
  preFlightAsked,
  preFlightItems,
  preFlightLeadsTo,
  preFlightMeasures,
  RISKS_SHOWN,
  usualPreFlightLimits,
  whatChanged,
} from "@/core/coating";
import { loadKnowledge } from "@/core/diagnosis";

describe("the earth, link by link", () => {
  test("adds up and names the link that holds most of it", () => {
    expect(earthChain({ "lead-rack": 0.1, "rack-hook": 0.7, "hook-part": 0.4 })).toMatchObject({
      ok: true,
      value: { result: "out", worst: "rack-hook", unread: [] },
    });
    const whole = earthChain({ "lead-rack": 0.2, "rack-hook": 0.5, "hook-part": 0.3 });
    expect(whole.ok && whole.value.totalMohm).toBeCloseTo(1, 12);
    expect(whole.ok && whole.value.result).toBe("in");
  });
  test("under the limit with a link unread is not known; over it is out all the same", () => {
    expect(earthChain({ "hook-part": 0.2 })).toMatchObject({
      value: { result: "unknown", unread: ["lead-rack", "rack-hook"] },
    });
    expect(earthChain({ "hook-part": 1.2 })).toMatchObject({ value: { result: "out" } });
    expect(earthChain({ "hook-part": 0.6 }, 0.5)).toMatchObject({ value: { result: "out" } });
  });
  test("no link, or one under nothing, is refused", () => {
    expect(earthChain({})).toMatchObject({ ok: false, error: { kind: "no-link-read" } });
    expect(earthChain({ "rack-hook": null })).toMatchObject({ ok: false, error: { kind: "no-link-read" } });
    expect(earthChain({ "rack-hook": -1 })).toMatchObject({
      ok: false,
      error: { kind: "bad-input", name: "rack-hook" },
    });
  });
  test("more resistance never makes it better", () => {
    const order = { in: 0, unknown: 1, watch: 2, out: 3 };
    fc.assert(
      fc.property(fc.double({ min: 0, max: 2, noNaN: true }), fc.double({ min: 0, max: 2, noNaN: true }), (a, more) => {
        const one = earthChain({ "lead-rack": 0, "rack-hook": 0, "hook-part": a });
        const two = earthChain({ "lead-rack": 0, "rack-hook": 0, "hook-part": a + more });
        expect(one.ok && two.ok && order[two.value.result] >= order[one.value.result]).toBe(true);
      }),
    );
  });
});

test("a setting is judged by its window; without a window or a value it is not", () => {
  expect(judgeSetting(60, [60, 80])).toBe("in");
  expect(judgeSetting(81, [60, 80])).toBe("out");
  expect(judgeSetting(0.4, [null, 0.6])).toBe("in");
  expect([judgeSetting(null, [60, 80]), judgeSetting(60, null)]).toEqual(["unknown", "unknown"]);
});

describe("the pre-flight", () => {
  const limits: PreFlightLimits = {
    gunAirKPa: [40, 75],
    earthLimitMohm: 1,
    boothAirMPerS: [0.3, 0.6],
    hookCyclesLimit: 5,
    compressedAirDewPointC: -20,
    ...usualPreFlightLimits,
  };
  const values: Partial<Record<PreFlightItem, number>> = {
    "lead-rack": 0.1,
    "rack-hook": 0.1,
    "hook-part": 0.2,
    "hooks-stripped": 3,
    "air-rest": 70,
    "air-flowing": 55,
    "air-dew-point": -32,
    "air-filter": 120,
    compressor: 45,
    "booth-air": 0.5,
    "hopper-mark": 22,
  };
  const entry = (item: PreFlightItem, over: Partial<PreFlightEntry> = {}): PreFlightEntry => {
    const value = values[item] ?? null;
    return {
      item,
      how: value === null ? "by-procedure" : "measured",
      value,
      good: value === null ? true : null,
      note: "",
      ...over,
    };
  };
  const all = (over: Partial<Record<PreFlightItem, Partial<PreFlightEntry>>> = {}, recoat = false) =>
    judgePreFlight(
      preFlightAsked(recoat).map((item) => entry(item, over[item])),
      limits,
      recoat,
    );
  test("everything read and seen is in, by the weakest of its grades", () => {
    expect(all()).toMatchObject({ result: "in", grade: "by-procedure", off: [], open: [] });
    expect(all().earth).toMatchObject({ result: "in", unread: [] });
    expect(all().earth?.totalMohm).toBeCloseTo(0.4, 12);
    expect(all().airDrop).toBeCloseTo(15 / 70, 12);
  });
  test.each([
    ["hooks-stripped", { value: 6 }],
    ["air-flowing", { value: 90 }],
    ["air-dew-point", { value: 2 }],
    ["booth-air", { value: 0.9 }],
    ["hopper-mark", { value: 80 }],
    ["blotter", { good: false }],
    ["gloves", { good: false }],
    ["powder-lot", { good: false }],
  ] as const)("%s off is out and named", (item, over) => {
    expect(all({ [item]: over })).toMatchObject({ result: "out", off: expect.arrayContaining([item]) });
  });
  test("links that hold alone and not together are out under the worst of them, once", () => {
    expect(
      all({ "lead-rack": { value: 0.3 }, "rack-hook": { value: 0.5 }, "hook-part": { value: 0.4 } }),
    ).toMatchObject({
      result: "out",
      off: ["rack-hook"],
    });
    const unread = all({ "rack-hook": { how: "skipped", value: null, note: "no meter" } });
    expect(unread.earth).toMatchObject({ result: "unknown", unread: ["rack-hook"] });
    expect(judgePreFlight([entry("gloves")], limits, false).earth).toBeNull();
  });
  test("a fall of the air from rest to flow is asked about", () => {
    expect(all({ "air-rest": { value: 110 } })).toMatchObject({ result: "watch", off: ["air-rest"] });
    expect(all({ "air-rest": { value: 50 } })).toMatchObject({ result: "watch", off: ["air-rest"] });
  });
  test("skipped is not known, never in; left out is open", () => {
    const skipped = all({ blotter: { how: "skipped", good: null, note: "no blotter left" } });
    expect(skipped).toMatchObject({ result: "unknown", grade: "unknown", open: [] });
    expect(judgePreFlight([entry("gloves")], limits, false).open).toHaveLength(preFlightAsked(false).length - 1);
  });
  test("scuffing is asked over an old film only", () => {
    expect(preFlightAsked(false)).not.toContain("scuffed");
    expect(all({ scuffed: { good: false } }, true)).toMatchObject({ result: "out", off: ["scuffed"] });
  });
  test("every item leads to a defect and a cause that the engine knows, and what is read has bounds", () => {
    const knowledge = loadKnowledge();
    for (const item of preFlightItems) {
      for (const [defect, cause] of preFlightLeadsTo[item]) {
        expect(knowledge.defects.has(defect), `${item}: ${defect}`).toBe(true);
        expect(knowledge.causes.has(cause), `${item}: ${cause}`).toBe(true);
      }
      const bounds = preFlightMeasures[item]?.bounds;
      if (bounds) expect(bounds[0]).toBeLessThan(bounds[1]);
    }
  });
});

describe("what stops", () => {
  const limits = {
    ...usualPreFlightLimits,
    gunAirKPa: [40, 75] as const,
    earthLimitMohm: 1,
    boothAirMPerS: [0.3, 0.6] as const,
    hookCyclesLimit: 10,
    compressedAirDewPointC: 3,
  };
  const stops = (item: PreFlightItem, value: number) =>
    judgePreFlight([{ item, how: "measured", value, good: null, note: "" }], limits, false).stops;
  test("no draught and no earth stop; too much draught is only out", () => {
    expect(stops("booth-air", 0.29)).toEqual(["booth-air"]);
    expect(stops("booth-air", 0.3)).toEqual([]);
    expect(stops("booth-air", 0.7)).toEqual([]);
    expect(stops("hook-part", 1.1)).toEqual(["hook-part"]);
    expect(stops("hook-part", 1)).toEqual([]);
    expect(stops("air-dew-point", 9)).toEqual([]);
  });
});

describe("the coach", () => {
  const facts = (over: Partial<CoachFacts> = {}): CoachFacts => ({
    features: [],
    cast: false,
    situation: "first-coat",
    coatNo: 1,
    traits: [],
    off: [],
    values: { kv: 70, gunAirKPa: 60 },
    windows: { kv: [60, 80], gunAirKPa: [40, 75], boothAirMPerS: [0.3, 0.6], metalC: [null, 45] },
    recessKv: 45,
    lotDaysLeft: 200,
    outgassed: false,
    lastKv: null,
    ...over,
  });
  test("95 kV at 80 mm on metal at 220 °C: each is said, and no draught comes before all of them", () => {
    const hot = coach(
      facts({
        values: { kv: 95, distanceMm: 80, metalC: 220, boothAirMPerS: 0.1 },
        windows: { kv: [60, 80], distanceMm: [150, 300], boothAirMPerS: [0.3, 0.6], metalC: [null, 45] },
      }),
    );
    expect(hot[0]).toMatchObject({ first: { kind: "do", what: "stop-for-draught" } });
    expect(hot.map((r) => r.cause)).toEqual(["booth-draught", "hot-spray-overbuild", "overcharging"]);
  });
  test("no outgassing bake is advised that was done; voltage raised against a bad earth is warned of first", () => {
    expect(coach(facts({ cast: true })).map((r) => r.cause)).toContain("casting-gas");
    expect(coach(facts({ cast: true, outgassed: true })).map((r) => r.cause)).not.toContain("casting-gas");
    const raised = coach(facts({ off: ["hook-part"], values: { kv: 85 }, lastKv: 70 }))[0];
    expect(raised).toMatchObject({
      because: { kind: "fact", fact: "voltage-against-earth" },
      first: { kind: "do", what: "earth-first" },
    });
    expect(coach(facts({ off: ["hook-part"], values: { kv: 70 }, lastKv: 70 }))[0]?.because.kind).toBe("off");
  });
  test("nothing off on a plain part: nothing to say", () => {
    expect(coach(facts())).toEqual([]);
  });
  test("light coverage asks for the earth before any voltage", () => {
    const [first] = coach(facts({ off: ["hook-part"], features: ["deep-recess"], values: { kv: 95 } }));
    expect(first).toMatchObject({ cause: "poor-ground", first: { kind: "do", what: "earth-first" } });
  });
  test("a recoat turns the voltage down, not up", () => {
    const risks = coach(facts({ situation: "recoat", coatNo: 2 }));
    expect(risks[0]).toMatchObject({
      cause: "recoat-insulation",
      first: { kind: "set", setting: "kv", to: 45, way: "down" },
    });
    expect(coach(facts({ situation: "recoat", coatNo: 2, values: { kv: 90 } }))[0]).toMatchObject({
      defect: "back-ionisation",
      because: { kind: "beyond", setting: "kv", value: 90, limit: 80 },
    });
  });
  test("a fan turned up on a part with recesses is the draught first", () => {
    const risks = coach(facts({ features: ["deep-recess"], values: { boothAirMPerS: 0.85 } }));
    expect(risks.map((r) => r.cause)).toEqual(["booth-draught", "faraday-recess"]);
    expect(risks[0]?.first).toEqual({ kind: "set", setting: "boothAirMPerS", to: 0.6, way: "down" });
  });
  test("never more than three, the likeliest first, and each known to the root-cause engine", () => {
    const knowledge = loadKnowledge();
    const everything = facts({
      features: ["deep-recess", "sharp-edges"],
      cast: true,
      situation: "recoat",
      coatNo: 2,
      traits: ["high-flow-powder", "water-releasing-powder"],
      off: [...preFlightItems],
      values: { kv: 95, gunAirKPa: 90, boothAirMPerS: 0.9, metalC: 180, reclaimPercent: 80, distanceMm: 50 },
      windows: {
        kv: [60, 80],
        gunAirKPa: [40, 75],
        boothAirMPerS: [0.3, 0.6],
        metalC: [null, 45],
        reclaimPercent: [null, 40],
        distanceMm: [150, 300],
      },
      lotDaysLeft: -3,
    });
    const risks = coach(everything);
    expect(risks).toHaveLength(RISKS_SHOWN);
    expect(risks.map((r) => r.weight)).toEqual(risks.map((r) => r.weight).sort((a, b) => b - a));
    for (const single of preFlightItems.flatMap((item) => coach(facts({ off: [item] })))) {
      expect(knowledge.defects.has(single.defect), single.defect).toBe(true);
      expect(knowledge.causes.has(single.cause), single.cause).toBe(true);
    }
    for (const risk of risks) expect(knowledge.causes.has(risk.cause)).toBe(true);
  });
});

describe("what changed", () => {
  const number = (name: string, now: number | null, good: number | null, usual: number[]): Compared => ({
    kind: "number",
    name,
    now,
    good,
    usual,
  });
  const word = (name: string, now: string | null, good: string | null, usual: string[]): Compared => ({
    kind: "word",
    name,
    now,
    good,
    usual,
  });
  test("ranks by how unusual it is here, not by how large it looks", () => {
    const found = whatChanged([
      number("kv", 74, 70, [66, 68, 70, 72, 74, 76]),
      number("boothAirMPerS", 0.85, 0.5, [0.44, 0.46, 0.5, 0.52, 0.54, 0.48]),
      word("painter", "maren", "rufus", ["maren", "maren", "rufus", "maren"]),
      word("lot", "2611-4", "2610-2", ["2610-2", "2610-2", "2610-2", "2610-2", "2610-2"]),
      number("gunAirKPa", 62, 62, [60, 62]),
      number("hookCycles", null, 3, [1, 2]),
    ]);
    if (!found.ok) throw new Error(found.error.kind);
    expect(found.value.changes.map((c) => c.name)).toEqual(["boothAirMPerS", "lot", "kv", "painter"]);
    expect(found.value).toMatchObject({ same: 1, notKnown: ["hookCycles"] });
    expect(found.value.changes[0]).toMatchObject({ unusual: 1, now: 0.85, good: 0.5, among: 6 });
    expect(found.value.changes[3]?.unusual).toBeCloseTo(0.25, 12);
  });
  test("with too little past a change is shown and stands in the middle", () => {
    const found = whatChanged([number("kv", 90, 70, [70]), word("lot", "b", "a", [])]);
    expect(found.ok && found.value.changes.map((c) => c.unusual)).toEqual([0.5, 0.5]);
  });
  test("nothing past its usual scatter is ever more unusual than the farthest", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 100 }), { minLength: 4, maxLength: 30 }),
        fc.integer({ min: 0, max: 100 }),
        (usual, now) => {
          const of = (value: number) => {
            const found = whatChanged([number("x", value, -1, usual)]);
            return found.ok ? (found.value.changes[0]?.unusual ?? 0) : Number.NaN;
          };
          expect(of(now)).toBeLessThanOrEqual(of(1000));
          expect(of(1000)).toBe(1);
        },
      ),
    );
  });
  test("what is not a number is refused by name", () => {
    expect(whatChanged([number("kv", Number.NaN, 70, [])])).toMatchObject({
      ok: false,
      error: { kind: "bad-input", name: "kv" },
    });
  });
});

describe("before and after a change", () => {
  // Welch's interval for these two, worked out by hand: difference 6, standard error √(2.5/5 + 2.5/5) = 1, 8 degrees of freedom, t = 2.306.
  const before = [70, 71, 72, 73, 74];
  const after = [76, 77, 78, 79, 80];
  test("gives the difference with its interval", () => {
    const found = beforeAfter(before, after);
    if (!found.ok) throw new Error(found.error.kind);
    expect(found.value).toMatchObject({ difference: 6, says: "moved" });
    expect(found.value.interval[0]).toBeCloseTo(6 - 2.306, 3);
    expect(found.value.interval[1]).toBeCloseTo(6 + 2.306, 3);
  });
  test("toward the aim it helped, away from it it made worse, within scatter it cannot be told", () => {
    expect(beforeAfter(before, after, 80)).toMatchObject({ value: { says: "helped" } });
    expect(beforeAfter(before, after, 68)).toMatchObject({ value: { says: "made-worse" } });
    expect(beforeAfter(before, [70, 72, 73, 74, 73], 80)).toMatchObject({ value: { says: "cannot-tell" } });
    expect(beforeAfter([5, 5], [5, 5])).toMatchObject({ value: { says: "cannot-tell", interval: [0, 0] } });
  });
  test("one value on a side is not enough", () => {
    expect(beforeAfter([1], after)).toMatchObject({ ok: false, error: { kind: "too-few-values", got: 1 } });
    expect(beforeAfter(before, [1, Number.NaN])).toMatchObject({ ok: false, error: { kind: "bad-input" } });
  });
});
