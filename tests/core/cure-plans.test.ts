import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  adviseLoad,
  type BakeChannel,
  cureIndex,
  doorOpenS,
  filmState,
  fitCureCurve,
  fitTimeConstant,
  follow,
  heatingRate,
  heatsAsPlateMm,
  heatThrough,
  heatTransferOf,
  indexByLayer,
  infraredDoubt,
  infraredHold,
  learnHeatTransfer,
  loadEnergy,
  loadedAirTauS,
  metals,
  ovenSurvey,
  ownChannels,
  placeLines,
  placesFromLines,
  planLoad,
  plannedAt,
  plateTimeConstant,
  proofAgreement,
  secondsToReach,
  sectionClassOf,
  speedBand,
  stopEffects,
  thinTrace,
  throughConveyor,
  timeConstantReached,
  traceColumns,
  traceFaults,
  zoneLines,
  zonesFromLines,
} from "@/core/cure";
import { readOvenFile } from "@/core/instrument-files";
import { valueOrThrow } from "@/core/result";
import { seededRandom, simulateBake } from "@/core/simulated-line";
import { clopperPearson, wilsonInterval } from "@/core/statistics";

const schedule = {
  points: [
    { metalC: 180, minutes: 20 },
    { metalC: 190, minutes: 15 },
    { metalC: 200, minutes: 10 },
  ],
  overbake: [
    { metalC: 190, minutes: 60 },
    { metalC: 200, minutes: 40 },
  ],
};
const curve = valueOrThrow(fitCureCurve(schedule.points));
const steady = (airC: number) => ({ startC: airC, tauS: 0, program: [{ fromS: 0, airC }] });
const piece = (id: string, sectionMm: number, over: object = {}) => ({
  id,
  section: { metal: "steel" as const, sectionMm, hWPerM2K: 25 },
  schedule,
  startC: 20,
  ...over,
});

describe("metal through an oven's program", () => {
  test("in steady air it is the closed form, T = A − (A − T₀) e^(−s/τ)", () => {
    const { metal } = valueOrThrow(heatThrough(steady(200), { tauS: 600, startC: 20 }, 1800, 60));
    for (const [i, s] of metal.timeS.entries()) expect(metal.tempC[i]).toBeCloseTo(200 - 180 * Math.exp(-s / 600), 9);
  });
  test("with air that lags, and a step down, it agrees with small steps of both equations", () => {
    const air = {
      startC: 60,
      tauS: 140,
      program: [
        { fromS: 0, airC: 232 },
        { fromS: 700, airC: 204 },
      ],
    };
    const { metal, air: airTrace } = valueOrThrow(heatThrough(air, { tauS: 300, startC: 20 }, 1500, 50));
    let [a, m] = [60, 20];
    const dt = 0.01;
    for (let s = 0; s < 1500 - dt / 2; s += dt) {
      const set = s < 700 - dt / 2 ? 232 : 204;
      const next = a + ((set - a) / 140) * dt;
      m += ((a - m) / 300) * dt;
      a = next;
    }
    expect(metal.tempC.at(-1)).toBeCloseTo(m, 1);
    expect(airTrace.tempC.at(-1)).toBeCloseTo(a, 1);
  });
  test("two constants that are alike divide nothing by nothing", () => {
    const air = (tauS: number) => ({ startC: 60, tauS, program: [{ fromS: 0, airC: 200 }] });
    const at = (tauS: number) =>
      valueOrThrow(heatThrough(air(tauS), { tauS: 300, startC: 20 }, 900, 100)).metal.tempC.at(-1) as number;
    expect(at(300)).toBeCloseTo((at(299.9) + at(300.1)) / 2, 4);
  });
  test.each([
    [{ startC: 20, tauS: 0, program: [] }, "no-program"],
    [{ startC: 20, tauS: 0, program: [{ fromS: 60, airC: 200 }] }, "program-out-of-order"],
    [
      {
        startC: 20,
        tauS: 0,
        program: [
          { fromS: 0, airC: 200 },
          { fromS: 0, airC: 180 },
        ],
      },
      "program-out-of-order",
    ],
    [{ startC: 20, tauS: Number.NaN, program: [{ fromS: 0, airC: 200 }] }, "bad-input"],
    [{ startC: 20, tauS: 0, program: [{ fromS: 0, airC: 5000 }] }, "bad-input"],
  ])("a program that cannot be is refused: %j", (air, kind) => {
    expect(heatThrough(air, { tauS: 300, startC: 20 }, 900, 10)).toMatchObject({ error: { kind } });
  });
});

describe("a mixed load", () => {
  test("each piece's time to temperature is the closed form; its index that of the same trace", () => {
    const plan = valueOrThrow(planLoad(steady(210), [piece("thin", 2), piece("thick", 10)]));
    for (const p of plan.pieces) {
      expect(p.reachesS).toBeCloseTo(
        valueOrThrow(secondsToReach({ tauS: p.tauS, airC: 210, startC: 20, toC: 180 })),
        0,
      );
      const untilS = 2400;
      const n = p.timeS.findIndex((s) => s >= untilS) + 1;
      const index = valueOrThrow(
        cureIndex({ timeS: p.timeS.slice(0, n), tempC: p.metalC.slice(0, n) }, curve, 140),
      ).index;
      expect(plannedAt(p.index, untilS)).toBeCloseTo(index, 0);
    }
    expect(plan.slowest).toBe("thick");
    expect(plan.fastest).toBe("thin");
  });
  test("inside its window every piece is cured and none over-baked; a minute outside one is not", () => {
    const plan = valueOrThrow(planLoad(steady(205), [piece("2", 2), piece("4", 4), piece("6", 6)]));
    const [from, to] = plan.windowS as [number, number];
    for (const s of [from + 1, (from + to) / 2, to - 1])
      for (const p of plan.pieces) {
        expect(plannedAt(p.index, s)).toBeGreaterThanOrEqual(99.9);
        expect(plannedAt(p.overbake ?? [], s)).toBeLessThanOrEqual(100.1);
      }
    expect(Math.min(...plan.pieces.map((p) => plannedAt(p.index, from - 60)))).toBeLessThan(100);
    expect(Math.max(...plan.pieces.map((p) => plannedAt(p.overbake ?? [], to + 60)))).toBeGreaterThan(100);
  });
  test("2 mm covers and 25 mm plates have no time in common: they are split into two loads, each with its window", () => {
    const plan = valueOrThrow(planLoad(steady(210), [piece("cover", 2), piece("plate", 25), piece("cover b", 2.5)]));
    expect(plan.windowS).toBeNull();
    expect(plan.loads.map((l) => [...l.pieces].sort())).toEqual([["cover", "cover b"], ["plate"]]);
    for (const { windowS } of plan.loads) expect(windowS[1] ?? Number.POSITIVE_INFINITY).toBeGreaterThan(windowS[0]);
  });
  test("preheated, the heavy piece joins the light one", () => {
    const cold = valueOrThrow(planLoad(steady(210), [piece("cover", 3), piece("plate", 12)]));
    const warm = valueOrThrow(planLoad(steady(210), [piece("cover", 3), piece("plate", 12, { startC: 190 })]));
    expect(cold.windowS).toBeNull();
    expect(warm.windowS).not.toBeNull();
  });
  test("air that never reaches the sheet cures nothing, and says which", () => {
    const plan = valueOrThrow(planLoad(steady(120), [piece("a", 2)]));
    expect(plan.never).toEqual(["a"]);
    expect(plan.windowS).toBeNull();
  });
  test("cooling counts for over-bake: without it the same pull would still be allowed", () => {
    const [p] = valueOrThrow(planLoad(steady(205), [piece("a", 10)])).pieces;
    const s = p?.spoilsS as number;
    const bare = valueOrThrow(planLoad(steady(205), [piece("a", 10)], { roomC: -50 })).pieces[0];
    expect(bare?.spoilsS as number).toBeGreaterThan(s);
  });
  test("properties: hotter air is ready sooner; a thicker piece later; the order does not matter", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 185, max: 220, noNaN: true }),
        fc.double({ min: 1, max: 12, noNaN: true }),
        fc.double({ min: 1.05, max: 3, noNaN: true }),
        (airC, mm, factor) => {
          const ready = (air: number, section: number) =>
            valueOrThrow(planLoad(steady(air), [piece("a", section)])).pieces[0]?.readyS ?? Number.POSITIVE_INFINITY;
          expect(ready(airC + 5, mm)).toBeLessThan(ready(airC, mm));
          expect(ready(airC, mm * factor)).toBeGreaterThan(ready(airC, mm));
          const [a, b] = [piece("a", mm), piece("b", mm * factor)];
          expect(valueOrThrow(planLoad(steady(airC), [a, b])).windowS).toEqual(
            valueOrThrow(planLoad(steady(airC), [b, a])).windowS,
          );
        },
      ),
      { numRuns: 25 },
    );
  });
  test("no pieces, a piece that cannot be: refused with its name", () => {
    expect(planLoad(steady(200), [])).toMatchObject({ error: { kind: "no-pieces" } });
    expect(planLoad(steady(200), [piece("x", -1)])).toMatchObject({ error: { kind: "bad-input", piece: "x" } });
    expect(planLoad(steady(200), [piece("x", 1)], { leastIndex: 0 })).toMatchObject({ error: { name: "leastIndex" } });
  });
});

describe("energy and air of a load", () => {
  test("100 kg of steel by 180 °C is 2.45 kWh; half an hour of 12 kW is 6; over 0.7", () => {
    const e = valueOrThrow(
      loadEnergy({
        pieces: [{ metal: "steel", massKg: 100, fromC: 20, toC: 200 }],
        idleKw: 12,
        bakeS: 1800,
        efficiency: 0.7,
      }),
    );
    expect(e.metalKWh).toBeCloseTo(2.45, 6);
    expect(e.lossKWh).toBeCloseTo(6, 9);
    expect(e.supplyKWh).toBeCloseTo(8.45 / 0.7, 6);
    expect(loadEnergy({ pieces: [], idleKw: 1, bakeS: 1, efficiency: 0 })).toMatchObject({
      error: { kind: "bad-input", name: "efficiency" },
    });
  });
  test("aluminium counts by its heat, not its weight; more than full is full", () => {
    const oven = { emptyTauS: 120, fullTauS: 480, fullKgSteel: 600 };
    expect(loadedAirTauS(oven, [])).toBe(120);
    expect(loadedAirTauS(oven, [{ metal: "steel", massKg: 300 }])).toBeCloseTo(300, 9);
    expect(loadedAirTauS(oven, [{ metal: "aluminium", massKg: (300 * 490) / 900 }])).toBeCloseTo(300, 9);
    expect(loadedAirTauS(oven, [{ metal: "steel", massKg: 5000 }])).toBe(480);
  });
});

describe("a conveyor", () => {
  const zones = [
    { name: "gel", lengthM: 4, airC: 280, hWPerM2K: 45 },
    { name: "convection", lengthM: 24, airC: 205, hWPerM2K: 28 },
  ];
  const light = { id: "light", metal: "steel" as const, sectionMm: 1.5, schedule };
  const heavy = { id: "heavy", metal: "steel" as const, sectionMm: 6, schedule };
  test("its index is that of its trace, the dwell its length over the speed", () => {
    const run = valueOrThrow(throughConveyor(zones, light, 1.4));
    expect(run.dwellS).toBeCloseTo((28 / 1.4) * 60, 9);
    const inside = run.trace.timeS.findIndex((s) => s >= run.dwellS - 1e-6) + 1;
    const trace = { timeS: run.trace.timeS.slice(0, inside), tempC: run.trace.tempC.slice(0, inside) };
    // Steps differ from zone to zone; none is a gap by three medians.
    expect(valueOrThrow(cureIndex(trace, curve, 140)).index).toBeCloseTo(run.index, 0);
  });
  test("at the edges of the band the heaviest is just cured and the lightest just not over-baked", () => {
    const band = valueOrThrow(speedBand(zones, [light, heavy]));
    expect(band.fastestFor).toBe("heavy");
    expect(valueOrThrow(throughConveyor(zones, heavy, band.fastestMPerMin)).index).toBeCloseTo(100, 2);
    expect(valueOrThrow(throughConveyor(zones, light, band.fastestMPerMin)).index).toBeGreaterThan(100);
    expect(band.slowestFor).toBe("light");
    expect(valueOrThrow(throughConveyor(zones, light, band.slowestMPerMin as number)).overbake).toBeCloseTo(100, 2);
  });
  test("a piece too heavy for any speed, or none at all", () => {
    const cold = [{ name: "cold", lengthM: 2, airC: 150, hWPerM2K: 10 }];
    expect(speedBand(cold, [heavy])).toMatchObject({ error: { kind: "never-cures", piece: "heavy" } });
    expect(speedBand(zones, [])).toMatchObject({ error: { kind: "no-pieces" } });
    expect(throughConveyor([], light, 1)).toMatchObject({ error: { kind: "no-zones" } });
    expect(throughConveyor(zones, light, 0)).toMatchObject({ error: { kind: "bad-input", name: "speedMPerMin" } });
  });
  test("a stop cures more wherever it finds the piece hot, most in the hot zone's end; none outside", () => {
    const plain = valueOrThrow(throughConveyor(zones, light, 1.4));
    const effects = valueOrThrow(stopEffects(zones, light, 1.4, 600));
    expect(effects).toHaveLength(56);
    expect(Math.min(...effects.map((e) => e.index))).toBeGreaterThanOrEqual(plain.index - 1e-6);
    const worst = effects.reduce((a, b) => ((b.overbake ?? 0) > (a.overbake ?? 0) ? b : a));
    expect(worst.atM).toBeLessThan(4);
    expect(valueOrThrow(throughConveyor(zones, light, 1.4, { stop: { atM: 10, forS: 0 } })).index).toBeCloseTo(
      plain.index,
      6,
    );
  });
});

describe("what an oven teaches", () => {
  test("a time constant comes back from a trace in air that lags", () => {
    const { metal, air } = valueOrThrow(
      heatThrough({ startC: 60, tauS: 150, program: [{ fromS: 0, airC: 205 }] }, { tauS: 420, startC: 20 }, 2400, 20),
    );
    const fit = valueOrThrow(fitTimeConstant(air, metal, 2400));
    expect(fit.converged).toBe(true);
    expect(fit.tauS).toBeCloseTo(420, -1);
    expect(Math.abs(fit.tauS - 420)).toBeLessThan(3);
    expect(fit.longEnough).toBe(true);
  });
  test("with the recorder's noise it is within two per cent, and nothing is learnt from cold metal", () => {
    const channels = simulateBake(seededRandom(3), {
      setPointC: 205,
      pieces: [{ channel: "A", tauS: 300 }],
      doorToPullS: 2000,
      intervalS: 20,
      coolS: 300,
      startC: 21,
    });
    const [air, metal] = channels as [BakeChannel, BakeChannel];
    const fit = valueOrThrow(fitTimeConstant(air.trace, metal.trace, 2000));
    expect(Math.abs(fit.tauS / 300 - 1)).toBeLessThan(0.02);
    const cold = { timeS: air.trace.timeS, tempC: air.trace.timeS.map(() => 21) };
    expect(fitTimeConstant(air.trace, cold, 2000)).toMatchObject({ error: { kind: "no-heating" } });
    expect(fitTimeConstant(air.trace, metal.trace, 60)).toMatchObject({ error: { kind: "too-few-samples" } });
  });
  test("one step in rising air: metal lags a steady rise by slope × τ", () => {
    let t = 20;
    for (let s = 0; s < 4000; s += 10) t = follow(t, 20 + s * 0.02, 20 + (s + 10) * 0.02, 10, 300);
    expect(20 + 4000 * 0.02 - t).toBeCloseTo(0.02 * 300, 4);
  });
  test("h and τ are each other's", () => {
    const tau = valueOrThrow(plateTimeConstant({ material: "aluminium", plateMm: 5, hWPerM2K: 31 })).tauS;
    expect(valueOrThrow(heatTransferOf(tau, "aluminium", 5))).toBeCloseTo(31, 9);
    expect(heatTransferOf(0, "steel", 5)).toMatchObject({ error: { name: "tauS" } });
  });
  test("nothing learnt: the usual figure, assumed, wide; five alike: measured, narrow", () => {
    expect(valueOrThrow(learnHeatTransfer([]))).toMatchObject({ hWPerM2K: 25, grade: "assumed", interval: null });
    const one = valueOrThrow(learnHeatTransfer([30]));
    expect(one.band[1] / one.band[0]).toBeCloseTo(1.3 / 0.7, 6);
    const many = valueOrThrow(learnHeatTransfer([30, 31, 29, 30.5, 29.5]));
    expect(many.grade).toBe("measured");
    expect(many.hWPerM2K).toBeCloseTo(30, 0);
    expect(many.band[0]).toBeLessThan(many.interval?.[0] ?? 0);
    expect(learnHeatTransfer([30, -1])).toMatchObject({ error: { kind: "bad-input" } });
  });
  test("what an oven teaches is the time constant that would have foretold the bake right", () => {
    const air = { startC: 60, tauS: 140, program: [{ fromS: 0, airC: 200 }] };
    for (const tauS of [60, 300, 1500]) {
      const run = valueOrThrow(heatThrough(air, { tauS, startC: 21 }, 9000, 1));
      const atS = run.metal.tempC.findIndex((c) => (c ?? 0) >= 180);
      expect(valueOrThrow(timeConstantReached(air, { startC: 21, toC: 180, atS })) / tauS).toBeCloseTo(1, 1);
    }
    // Later than the model's own air allows is slow; sooner than even foil would be is no figure.
    expect(timeConstantReached(air, { startC: 21, toC: 180, atS: 30 })).toMatchObject({
      error: { kind: "never-reaches" },
    });
    expect(timeConstantReached({ ...air, program: [] }, { startC: 21, toC: 180, atS: 900 })).toMatchObject({
      error: { kind: "no-program" },
    });
  });
  test("a fit never bridges a gap: what the air did in it does not count", () => {
    // 300 s in air that is at 200 °C, but falls to 60 °C for four minutes that nobody recorded.
    const timeS = Array.from({ length: 121 }, (_, i) => i * 15);
    const airAt = (s: number) => (s >= 600 && s < 840 ? 60 : 200);
    let c = 20;
    const metal = timeS.map((s, i) => {
      if (i > 0) c += (airAt(s) - c) * (1 - Math.exp(-15 / 300));
      return c;
    });
    const seen = timeS.map((s) => s < 600 || s > 840);
    const part = (values: readonly number[]) => ({
      timeS: timeS.filter((_, i) => seen[i]),
      tempC: values.filter((_, i) => seen[i]),
    });
    const fit = valueOrThrow(fitTimeConstant(part(timeS.map(() => 200)), part(metal), 1800));
    expect(fit.tauS).toBeCloseTo(300, 0);
    expect(fit.rmsC).toBeLessThan(0.01);
  });
  test("a hollow section takes heat from outside only: its wall counts whole", () => {
    const tube = heatsAsPlateMm({ thickestMm: 5, thinnestMm: 5, hollow: true });
    expect(tube).toBe(10);
    const tau = (plateMm: number) => valueOrThrow(plateTimeConstant({ material: "steel", plateMm })).tauS;
    expect(tau(tube)).toBeCloseTo((7850 * 490 * 0.005) / 25, 6);
    expect(tau(heatsAsPlateMm({ thickestMm: 5, thinnestMm: 5, hollow: false }))).toBeCloseTo(tau(tube) / 2, 6);
    // A solid foot on a thin tube is the slower of the two.
    expect(heatsAsPlateMm({ thickestMm: 20, thinnestMm: 4, hollow: true })).toBe(20);
    expect(sectionClassOf(10, true)).toBe("hollow, as a plate over 8 to 15 mm");
  });
  test("classes of section", () => {
    expect([1, 3, 3.1, 8, 12, 25].map((mm) => sectionClassOf(mm, false))).toEqual([
      "up to 3 mm",
      "up to 3 mm",
      "over 3 to 8 mm",
      "over 3 to 8 mm",
      "over 8 to 15 mm",
      "over 15 mm",
    ]);
  });
});

describe("what is wrong with a trace", () => {
  const bake = (seed = 1) =>
    simulateBake(seededRandom(seed), {
      setPointC: 205,
      pieces: [
        { channel: "Thin", tauS: 200 },
        { channel: "Middle", tauS: 320 },
        { channel: "Thick", tauS: 450 },
      ],
      doorToPullS: 2600,
      intervalS: 20,
      coolS: 300,
      startC: 21,
    });
  const edit = (channels: BakeChannel[], name: string, to: (c: number, i: number) => number): BakeChannel[] =>
    channels.map((c) =>
      c.name === name
        ? { ...c, trace: { ...c.trace, tempC: c.trace.tempC.map((t, i) => (t === null ? null : to(t, i))) } }
        : c,
    );
  test("an honest bake has none, whatever the noise", () => {
    for (let seed = 1; seed <= 20; seed++) expect(traceFaults(bake(seed), schedule)).toEqual([]);
  });
  test("200 °C in one sample", () => {
    expect(traceFaults(edit(bake(), "Thin", (c, i) => (i === 40 ? c + 200 : c)))).toMatchObject([
      { kind: "absurd-rate", channel: "Thin", atS: 800 },
    ]);
  });
  test("a probe in the air taken for metal", () => {
    const channels = bake();
    const air = channels[0]?.trace.tempC ?? [];
    expect(traceFaults(edit(channels, "Thick", (_, i) => (air[i] as number) - 2))).toMatchObject([
      { kind: "heats-like-air", channel: "Thick" },
    ]);
  });
  test("plugs changed over", () => {
    const channels = bake();
    const air = channels[0] as BakeChannel;
    const thin = channels[1] as BakeChannel;
    const swapped = [{ ...air, trace: thin.trace }, { ...thin, trace: air.trace }, ...channels.slice(2)];
    expect(traceFaults(swapped)).toMatchObject([{ kind: "changed-over", channel: "Air", with: "Thin" }]);
  });
  test("Fahrenheit read as Celsius is offered", () => {
    const hot = bake().map((c) => ({
      ...c,
      trace: { ...c.trace, tempC: c.trace.tempC.map((t) => (t === null ? null : (t * 9) / 5 + 32)) },
    }));
    const [fault] = traceFaults(hot, schedule).filter((f) => f.kind === "fahrenheit-as-celsius");
    expect(fault).toMatchObject({ kind: "fahrenheit-as-celsius" });
    expect((fault as { asC: number }).asC).toBeGreaterThan(195);
  });
  test("a channel that leaves the others while they hold", () => {
    const drifting = edit(bake(), "Thin", (c, i) => c + Math.max(0, i * 20 - 1700) * 0.012);
    expect(traceFaults(drifting)).toMatchObject([{ kind: "drifts", channel: "Thin" }]);
  });
});

describe("spot readings by infrared", () => {
  const at = (minute: number, metalC: number, over: object = {}) => ({
    atS: minute * 60,
    metalC,
    emissivity: 0.95,
    aim: "coated-part" as const,
    ...over,
  });
  test("ten minutes at 200, read every two: measured", () => {
    const hold = valueOrThrow(
      infraredHold(
        [0, 2, 4, 6, 8, 10].map((m) => at(m, 201)),
        200,
      ),
    );
    expect(hold).toMatchObject({ longestS: 600, grade: "measured", used: 6, doubted: 0 });
  });
  test("bright metal, the wall and a low emissivity are kept and not relied on", () => {
    expect(infraredDoubt(at(0, 120, { aim: "bare-metal" }))).toMatchObject({ value: "bright-metal" });
    expect(infraredDoubt(at(0, 205, { aim: "oven-wall" }))).toMatchObject({ value: "not-the-part" });
    expect(infraredDoubt(at(0, 205, { emissivity: 0.5 }))).toMatchObject({ value: "low-emissivity" });
    expect(infraredDoubt(at(0, 205, { emissivity: 1.2 }))).toMatchObject({ error: { kind: "bad-input" } });
    const hold = valueOrThrow(infraredHold([at(0, 205), at(3, 205, { aim: "oven-wall" }), at(4, 205)], 200));
    expect(hold).toMatchObject({ longestS: 240, used: 2, doubted: 1, grade: "assumed" });
  });
  test("a wait of more than five minutes proves nothing", () => {
    expect(valueOrThrow(infraredHold([at(0, 205), at(9, 205)], 200))).toMatchObject({ longestS: 0, grade: "assumed" });
    expect(valueOrThrow(infraredHold([], 200))).toMatchObject({ grade: "unknown", longestS: 0, trace: null });
    expect(infraredHold([at(1, 205), at(1, 206)], 200)).toMatchObject({ error: { kind: "times-out-of-order" } });
  });
});

describe("a survey", () => {
  const times = Array.from({ length: 61 }, (_, i) => i * 60);
  const place = (name: string, off: number) => ({
    place: name,
    trace: { timeS: times, tempC: times.map((s) => (s >= 2400 && s < 2880 ? 170 : 200) + off) },
  });
  test("spread at the hold, coldest, hottest and recovery after the door", () => {
    const survey = valueOrThrow(
      ovenSurvey([place("door", -7), place("middle", 0), place("back", 4)], 200, [600, 2340], 2400),
    );
    expect(survey).toMatchObject({
      coldest: "door",
      hottest: "back",
      spreadC: 11,
      recoveryS: 480,
      lowestAfterDoorC: 170,
    });
    expect(survey.places[0]).toEqual({ place: "door", meanC: 193, offC: -7 });
  });
  test("one place, a hold the wrong way round, a probe without numbers", () => {
    expect(ovenSurvey([place("a", 0)], 200, [0, 100])).toMatchObject({ error: { kind: "too-few-places" } });
    expect(ovenSurvey([place("a", 0), place("b", 0)], 200, [100, 0])).toMatchObject({ error: { kind: "bad-hold" } });
    const dead = { place: "b", trace: { timeS: times, tempC: times.map(() => null) } };
    expect(ovenSurvey([place("a", 0), dead], 200, [600, 2340])).toMatchObject({
      error: { kind: "no-samples", channel: "b" },
    });
  });
});

describe("index against rub", () => {
  test("Wilson's and the exact interval, at published values", () => {
    // Newcombe, Statistics in Medicine 17 (1998), table I: 81 of 263; and 0 of 20.
    const [low, high] = wilsonInterval(81, 263);
    expect(low).toBeCloseTo(0.2553, 4);
    expect(high).toBeCloseTo(0.3662, 4);
    expect(wilsonInterval(0, 20)[1]).toBeCloseTo(0.1611, 4);
    const exact = clopperPearson(81, 263);
    expect(exact[0]).toBeCloseTo(0.2527, 4);
    expect(exact[1]).toBeCloseTo(0.3676, 4);
    // No failure in n: at most 1 − 0.05^(1/n).
    expect(clopperPearson(0, 29)[1]).toBeCloseTo(1 - 0.05 ** (1 / 29), 9);
    expect(() => wilsonInterval(3, 2)).toThrow(RangeError);
  });
  test("the safe index is the lowest from which every rub passed, said from ten on", () => {
    const good = (index: number) => ({ index, passed: true });
    const few = valueOrThrow(proofAgreement([good(120), { index: 104, passed: false }, good(90)]));
    expect(few).toMatchObject({ pairs: 3, agree: 1, indexMissed: 1, indexTooStrict: 1, safeIndex: null });
    const many = valueOrThrow(
      proofAgreement([{ index: 108, passed: false }, ...Array.from({ length: 12 }, (_, i) => good(112 + i))]),
    );
    expect(many.safeIndex).toBe(112);
    expect(many.mayFailMost).toBeCloseTo(1 - 0.05 ** (1 / 12), 9);
    expect(proofAgreement([])).toMatchObject({ error: { kind: "too-few-values" } });
    expect(proofAgreement([{ index: Number.NaN, passed: true }])).toMatchObject({ error: { kind: "bad-input" } });
  });
  test("a recoat bakes the first layer twice", () => {
    expect(
      indexByLayer([
        { coatNo: 1, index: 140, overbakeIndex: 30 },
        { coatNo: 2, index: 120, overbakeIndex: 25 },
      ]),
    ).toEqual([
      { coatNo: 1, index: 260, overbakeIndex: 55, bakes: 2 },
      { coatNo: 2, index: 120, overbakeIndex: 25, bakes: 1 },
    ]);
  });
});

test("every metal has what a heat-up needs", () => {
  for (const m of Object.values(metals))
    expect(m.densityKgPerM3 * m.heatJPerKgK * m.conductivityWPerMK).toBeGreaterThan(0);
});

describe("a recorder's file that is not whole", () => {
  const rows = Array.from({ length: 12 }, (_, i) => `00:${String(i).padStart(2, "0")}:00,${20 + i * 8},${20 + i * 5}`);
  test("a column without a name is named by its place; a stray mark is none", () => {
    const file = valueOrThrow(readOvenFile(`Elapsed,Air (C),,\n${rows.map((r) => `${r},`).join("\n")}\n`));
    expect(file.channels.map((c) => c.name)).toEqual(["Air", "Channel 2"]);
    expect(file.unnamed).toEqual(["Channel 2"]);
  });
  test("cut off in its last line: the line is left out, and said", () => {
    const file = valueOrThrow(readOvenFile(`Elapsed,Air (C),Plate (C)\n${rows.join("\n")}\n00:12:00,1`));
    expect(file).toMatchObject({ cutOff: true, samples: 12 });
    expect(valueOrThrow(readOvenFile(`Elapsed,Air (C),Plate (C)\n${rows.join("\n")}\n`)).cutOff).toBe(false);
  });
  test("in another unit than it says, where a person says so", () => {
    const text = `Elapsed,Air (C),Plate (C)\n${rows.join("\n")}\n`;
    const asF = valueOrThrow(readOvenFile(text, null, "degF"));
    expect(asF).toMatchObject({ unit: "degF", unitFrom: "person" });
    expect(asF.channels[0]?.trace.tempC[0]).toBeCloseTo(((20 - 32) * 5) / 9, 9);
  });
});

describe("a long trace drawn", () => {
  const timeS = Array.from({ length: 28_800 }, (_, i) => i);
  const tempC: (number | null)[] = timeS.map((s) => 180 + Math.sin(s / 900) * 10);
  tempC[12_345] = 240;
  tempC[20_001] = 60;
  tempC[9000] = null;
  test("keeps each excursion, in fewer points, and breaks where a number is missing", () => {
    const stretches = traceColumns({ timeS, tempC }, 0, 28_799, 360);
    expect(stretches).toHaveLength(2);
    const drawn = stretches.flat();
    expect(drawn.length).toBeLessThan(4 * 360 + 8);
    expect(drawn).toContain(12_345);
    expect(drawn).toContain(20_001);
    expect([...drawn].sort((a, b) => a - b)).toEqual(drawn);
  });
  test("thinned to be sent, it keeps them too, and what is missing stays missing", () => {
    const thin = thinTrace({ timeS, tempC }, 1000);
    expect(thin.timeS.length).toBeLessThan(4010);
    expect(thin.tempC).toContain(240);
    expect(thin.tempC).toContain(60);
    expect(thin.tempC).toContain(null);
    const short = { timeS: [0, 1], tempC: [1, 2] };
    expect(thinTrace(short, 1000)).toBe(short);
  });
});

describe("advice for a load that is in", () => {
  const air = steady(205);
  const at = (id: string, mm: number, over: object = {}) => piece(id, mm, { startC: 180, ...over });
  const advise = (...pieces: ReturnType<typeof piece>[]) => valueOrThrow(adviseLoad(air, pieces, 100)).advice;
  test("not before the slowest; from what each has earned already", () => {
    const first = advise(at("a", 2), at("b", 6));
    expect(first).toMatchObject({ kind: "not-before", waitsFor: "b" });
    const later = advise(
      at("a", 2, { earned: { index: 60, overbake: 10 } }),
      at("b", 6, { earned: { index: 60, overbake: 10 } }),
    );
    expect(later.kind).toBe("not-before");
    expect((later as { inS: number }).inS).toBeLessThan((first as { inS: number }).inS);
  });
  test("pull when all are cured, and when the first is spoilt; over-baked already is said", () => {
    const done = { earned: { index: 130, overbake: 40 } };
    expect(advise(at("a", 2, done), at("b", 6, done))).toMatchObject({ kind: "pull-now" });
    expect(advise(at("a", 2, { earned: { index: 300, overbake: 120 } }))).toEqual({
      kind: "over-baked",
      pieces: ["a"],
    });
  });
  test("two masses that have no moment in common: the light ones first", () => {
    expect(advise(piece("cover", 2), piece("plate", 25))).toMatchObject({
      kind: "take-out-first",
      first: ["cover"],
      afterwards: ["plate"],
    });
  });
  test("too cool an oven never cures it", () => {
    expect(valueOrThrow(adviseLoad(steady(125), [piece("a", 2)], 100)).advice).toEqual({
      kind: "never",
      pieces: ["a"],
    });
  });
});

describe("what is noted of a load", () => {
  test("loose, melted with touch-up open, curing, cured", () => {
    const melted = [{ event: "melted" as const, atS: 400 }];
    expect(filmState([], 300, 0, 0)).toEqual({ kind: "loose" });
    expect(filmState(melted, 500, 5, 0.1)).toMatchObject({ kind: "melted", touchUpOpen: true, touchUpLeftS: 200 });
    expect(filmState(melted, 300, 5, 0.1)).toEqual({ kind: "loose" });
    expect(filmState(melted, 900, 40, 0.1)).toEqual({ kind: "curing" });
    expect(filmState(melted, 1900, 101, 0.1)).toEqual({ kind: "cured" });
  });
  test("the door's openings within a span; one left open runs on", () => {
    const events = [
      { event: "door-opened" as const, atS: 100 },
      { event: "door-shut" as const, atS: 160 },
      { event: "door-opened" as const, atS: 900 },
    ];
    expect(doorOpenS(events, 0, 800)).toBe(60);
    expect(doorOpenS(events, 130, 1000)).toBe(130);
    expect(doorOpenS([], 0, 800)).toBe(0);
  });
});

describe("an oven's places and zones as lines", () => {
  test("read, and written back the same", () => {
    const places = valueOrThrow(placesFromLines("A1, 14, 88, by the door, left\n\nB2,50,50"));
    expect(places).toEqual([
      { id: "A1", at: [14, 88], note: "by the door, left" },
      { id: "B2", at: [50, 50], note: "" },
    ]);
    expect(valueOrThrow(placesFromLines(placeLines(places)))).toEqual(places);
    const zones = valueOrThrow(zonesFromLines("gel, infrared, 3, 285, 42\nend, convection, 14.5, 204, 27"));
    expect(zones[1]).toEqual({ name: "end", heat: "convection", lengthM: 14.5, airC: 204, hWPerM2K: 27 });
    expect(valueOrThrow(zonesFromLines(zoneLines(zones)))).toEqual(zones);
  });
  test.each([
    [placesFromLines("A1, 14"), 1],
    [placesFromLines("A1, 14, 20\na1, 20, 20"), 2],
    [placesFromLines("A1, 140, 20"), 1],
    [zonesFromLines("gel, hot, 3, 285, 42"), 1],
    [zonesFromLines("gel, infrared, 3, 285"), 1],
    [zonesFromLines("gel, infrared, 3, 285, 42\nend, convection, -1, 200, 25"), 2],
  ])("what cannot be names its line: %#", (result, line) => {
    expect(result).toMatchObject({ error: { kind: "bad-oven-line", line } });
  });
});

describe("a hold of the sheet as well", () => {
  test("waits for temperature and minutes; what was held before counts on", () => {
    const byIndex = valueOrThrow(planLoad(steady(190), [piece("a", 4)])).pieces[0];
    const byBoth = valueOrThrow(planLoad(steady(190), [piece("a", 4)], { holdToo: true })).pieces[0];
    // Air at 190 never holds 190 on the metal: the sheet's 20 min at 180 is the one that is met.
    const at180 = valueOrThrow(secondsToReach({ tauS: byBoth?.tauS ?? 0, airC: 190, startC: 20, toC: 180 }));
    expect(byBoth?.readyS).toBeCloseTo(Math.max(byIndex?.readyS ?? 0, at180 + 1200), 0);
    const hot = (heldS: number[]) =>
      valueOrThrow(
        planLoad(steady(185), [piece("a", 4, { startC: 184, earned: { index: 200, overbake: 0, heldS } })], {
          holdToo: true,
        }),
      ).pieces[0]?.readyS;
    expect(hot([0, 0, 0])).toBeCloseTo(1200, 0);
    expect(hot([900, 0, 0])).toBeCloseTo(300, 0);
    expect(hot([1500, 0, 0])).toBe(0);
  });
  test("an oven too cool to hold any point of the sheet never meets it", () => {
    const plan = valueOrThrow(planLoad(steady(178), [piece("a", 2)], { holdToo: true }));
    expect(plan.never).toEqual(["a"]);
    expect(valueOrThrow(planLoad(steady(178), [piece("a", 2)])).never).toEqual([]);
  });
  test("a rack of several is judged by its own probe, one of a load alone by all", () => {
    const trace = { timeS: [0, 60], tempC: [20, 30] };
    const channels: BakeChannel[] = [
      { name: "Air", medium: "air", trace },
      { name: "700", medium: "metal", trace },
      { name: "701", medium: "metal", trace },
    ];
    const names = (rack: string, named: string | null, racks: number) =>
      ownChannels(channels, rack, named, racks).map((c) => c.name);
    expect(names("700", null, 2)).toEqual(["Air", "700"]);
    expect(names("900", "701", 2)).toEqual(["Air", "701"]);
    expect(names("900", null, 2)).toEqual(["Air", "700", "701"]);
    expect(names("700", "700", 1)).toEqual(["Air", "700", "701"]);
  });
});

test("how fast a channel climbs where the powder melts; nothing where it does not pass both", () => {
  const trace = { timeS: [0, 60, 120, 180], tempC: [20, 80, 140, 200] };
  expect(heatingRate(trace)).toBeCloseTo(60, 9);
  expect(heatingRate({ timeS: [0, 60], tempC: [20, 90] })).toBeNull();
  expect(heatingRate({ timeS: [0, 60, 120], tempC: [20, null, 200] })).toBeNull();
});
