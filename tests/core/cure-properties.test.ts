import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  adviseLoad,
  fitCureCurve,
  gelSchedule,
  heatThrough,
  judgeBake,
  type PlannedPiece,
  planLoad,
  type SectionReading,
  sectionStates,
  throughConveyor,
} from "@/core/cure";
import { valueOrThrow } from "@/core/result";

const schedule = {
  points: [
    { metalC: 180, minutes: 20 },
    { metalC: 190, minutes: 15 },
    { metalC: 200, minutes: 10 },
  ],
  overbake: [{ metalC: 200, minutes: 40 }],
};
const air = { startC: 60, tauS: 140, program: [{ fromS: 0, airC: 205 }] };
const runs = { numRuns: 40 };

describe("metal in an oven, whatever the program", () => {
  const program = fc
    .array(fc.record({ afterS: fc.integer({ min: 60, max: 1800 }), airC: fc.integer({ min: 20, max: 240 }) }), {
      minLength: 1,
      maxLength: 4,
    })
    .map((steps) => {
      let fromS = 0;
      return steps.map((s, i) => {
        if (i > 0) fromS += s.afterS;
        return { fromS, airC: s.airC };
      });
    });
  test("never hotter than the hottest it met, never colder than the coldest", () => {
    fc.assert(
      fc.property(
        program,
        fc.integer({ min: 60, max: 1200 }),
        fc.integer({ min: 0, max: 240 }),
        (steps, tauS, startC) => {
          const { metal } = valueOrThrow(
            heatThrough({ startC: 60, tauS: 140, program: steps }, { tauS, startC }, 5400, 30),
          );
          const met = [60, startC, ...steps.map((s) => s.airC)];
          return metal.tempC.every((c) => (c ?? 0) <= Math.max(...met) + 1e-9 && (c ?? 0) >= Math.min(...met) - 1e-9);
        },
      ),
      runs,
    );
  });
  test("cut anywhere and gone on from there it is the same run", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100 }), fc.integer({ min: 60, max: 900 }), (k, tauS) => {
        const whole = valueOrThrow(heatThrough(air, { tauS, startC: 20 }, 3600, 30));
        const cut = k * 30;
        const first = valueOrThrow(heatThrough(air, { tauS, startC: 20 }, cut, 30));
        const rest = valueOrThrow(
          heatThrough(
            { ...air, startC: first.air.tempC.at(-1) as number },
            { tauS, startC: first.metal.tempC.at(-1) as number },
            3600 - cut,
            30,
          ),
        );
        return Math.abs((rest.metal.tempC.at(-1) as number) - (whole.metal.tempC.at(-1) as number)) < 1e-6;
      }),
      runs,
    );
  });
});

describe("advice for a load, whatever hangs in it", () => {
  const piece = (id: string) =>
    fc
      .record({
        tauS: fc.integer({ min: 60, max: 2400 }),
        startC: fc.integer({ min: 20, max: 204 }),
        index: fc.integer({ min: 0, max: 140 }),
        overbake: fc.integer({ min: 0, max: 120 }),
      })
      .map(
        ({ tauS, startC, index, overbake }): PlannedPiece => ({
          id,
          section: { tauS },
          schedule,
          startC,
          earned: { index, overbake },
        }),
      );
  test("every piece is in the advice that is due to it, and no pull is advised that spoils one", () => {
    fc.assert(
      fc.property(fc.tuple(piece("a"), piece("b"), piece("c")), (pieces) => {
        const { advice, plan } = valueOrThrow(adviseLoad(air, pieces, 110));
        switch (advice.kind) {
          case "pull-now":
            return plan.pieces.every((p) => p.readyS === 0 && (p.spoilsS === null || p.spoilsS > 0));
          case "not-before": {
            const last = Math.max(...plan.pieces.map((p) => p.readyS ?? Number.POSITIVE_INFINITY));
            const within = advice.spoilsInS === null || advice.inS <= advice.spoilsInS;
            return advice.inS === last && within && plan.pieces.some((p) => p.id === advice.waitsFor);
          }
          case "take-out-first": {
            const told = [...advice.first, ...advice.afterwards].sort();
            return told.join() === "a,b,c" && plan.windowS === null;
          }
          case "over-baked":
            return advice.pieces.every((id) => plan.pieces.find((p) => p.id === id)?.spoilsS === 0);
          case "never":
            return advice.pieces.every((id) => plan.pieces.find((p) => p.id === id)?.readyS === null);
        }
      }),
      { numRuns: 120 },
    );
  });
  test("a piece that has earned more is never later", () => {
    fc.assert(
      fc.property(fc.integer({ min: 60, max: 900 }), fc.integer({ min: 0, max: 90 }), (tauS, index) => {
        const ready = (earned: number) =>
          valueOrThrow(
            planLoad(air, [
              { id: "a", section: { tauS }, schedule, startC: 150, earned: { index: earned, overbake: 0 } },
            ]),
          ).pieces[0]?.readyS ?? Number.POSITIVE_INFINITY;
        return ready(index + 10) <= ready(index);
      }),
      runs,
    );
  });
});

describe("a gel, whatever its minutes", () => {
  test("its own minutes at its own heat are a hundred, and its most minutes are as far as it goes", () => {
    fc.assert(
      fc.property(fc.integer({ min: 130, max: 160 }), fc.integer({ min: 3, max: 10 }), (metalC, leastMin) => {
        const mostMin = leastMin * 2;
        const gel = valueOrThrow(gelSchedule({ metalC, leastMin, mostMin }, schedule.points));
        const flat = (minutes: number) => ({
          name: "x",
          medium: "metal" as const,
          trace: { timeS: [0, minutes * 30, minutes * 60], tempC: [metalC, metalC, metalC] },
        });
        const least = valueOrThrow(judgeBake([flat(leastMin)], gel));
        const most = valueOrThrow(judgeBake([flat(mostMin)], gel));
        return (
          Math.abs(least.decidingIndex - 100) < 1e-6 && Math.abs((most.channels[0]?.overbakeIndex ?? 0) - 100) < 1e-6
        );
      }),
      runs,
    );
  });
});

describe("sections under lamps, in whatever order they are read", () => {
  const reading = fc.record({
    section: fc.constantFrom("Left", "Right"),
    atS: fc.integer({ min: 0, max: 3600 }),
    metalC: fc.integer({ min: 100, max: 205 }),
    emissivity: fc.constant(0.95),
    aim: fc.constant("coated-part" as const),
  });
  const readings = fc.uniqueArray(reading, { selector: (r) => `${r.section}${r.atS}`, maxLength: 40 });
  const states = (all: readonly SectionReading[]) =>
    valueOrThrow(sectionStates(["Left", "Right"], all, schedule, 3600));
  test("the order in which they came down does not matter", () => {
    fc.assert(
      fc.property(readings, (all) => {
        expect(states([...all].reverse())).toEqual(states(all));
      }),
      runs,
    );
  });
  test("one section's readings are nothing to the other", () => {
    fc.assert(
      fc.property(readings, (all) => {
        const left = all.filter((r) => r.section === "Left");
        expect(states(left)[0]).toEqual(states(all)[0]);
      }),
      runs,
    );
  });
  test("no section is cured by fewer than two readings, and none earns more than its hottest reading for all the time", () => {
    const curve = valueOrThrow(fitCureCurve(schedule.points));
    fc.assert(
      fc.property(readings, (all) =>
        states(all).every((s) => {
          const own = all.filter((r) => r.section === s.section);
          if (own.length < 2) return s.index === 0;
          const hottest = Math.max(...own.map((r) => r.metalC));
          const spanMin = (Math.max(...own.map((r) => r.atS)) - Math.min(...own.map((r) => r.atS))) / 60;
          return s.index <= (100 * spanMin) / Math.exp(curve.a + curve.b / (hottest + 273.15)) + 1e-6;
        }),
      ),
      runs,
    );
  });
});

test("on a conveyor the cure falls with the speed, whatever the section", () => {
  const zones = [
    { name: "gel", lengthM: 3, airC: 285, hWPerM2K: 42 },
    { name: "hold", lengthM: 28, airC: 206, hWPerM2K: 27 },
  ];
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 15 }), fc.integer({ min: 4, max: 40 }), (sectionMm, tenths) => {
      const index = (speed: number) =>
        valueOrThrow(throughConveyor(zones, { id: "p", metal: "steel", sectionMm, schedule }, speed)).index;
      return index(tenths / 10 + 0.1) <= index(tenths / 10) + 1e-6;
    }),
    runs,
  );
});
