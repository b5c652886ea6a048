import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { judgeBathValue } from "@/core/bath";
import { cureIndex, fitCureCurve } from "@/core/cure";
import { valueOrThrow } from "@/core/result";
import { type SimulatedProduct, seededRandom, simulateBake, simulateLine } from "@/core/simulated-line";

const DAY = 86_400_000;
const HOUR = 3_600_000;
const product = (over: Partial<SimulatedProduct> = {}): SimulatedProduct => ({
  key: "RAIL",
  cast: false,
  powder: "GR-210",
  targetUm: 74,
  faces: [
    { face: "A", spots: ["A1", "A2"], effectUm: [0, -14] },
    { face: "B", spots: ["B1"], effectUm: [3] },
  ],
  pieces: 8,
  tauS: [
    { channel: "thin", tauS: 200 },
    { channel: "thick", tauS: 380 },
  ],
  setPointC: 205,
  doorToPullS: 2000,
  ...over,
});
const run = (over: Partial<Parameters<typeof simulateLine>[0]> = {}) =>
  simulateLine({
    seed: 11,
    fromMs: 0,
    toMs: 12 * DAY,
    racksPerDay: 4,
    firstRackNumber: 200,
    products: [product(), product({ key: "HEAD", cast: true })],
    wrongAdditionMs: 1e15,
    putRightMs: 1e15,
    gassyDeliveryMs: 1e15,
    ...over,
  });

describe("the simulated line", () => {
  const line = run();
  test("hangs its racks one after another, each under a number of its own", () => {
    expect(line.racks.length).toBeGreaterThan(40);
    const numbers = line.racks.map((r) => r.number);
    expect(new Set(numbers).size).toBe(numbers.length);
    expect(numbers[0]).toBe("0200");
    for (const rack of line.racks) {
      expect(rack.hungMs).toBeGreaterThanOrEqual(0);
      expect(rack.hungMs).toBeLessThan(12 * DAY);
    }
  });
  test("every rack passes its stages in the order of the line, without overlap", () => {
    const order = ["blast", "clean", "conversion", "rinse", "dry-off", "prebake", "booth", "oven"];
    for (const rack of line.racks) {
      const places = rack.passages.map((p) => order.indexOf(p.stage));
      expect(places, rack.number).toEqual([...places].sort((a, b) => a - b));
      expect(places).not.toContain(-1);
      for (const [i, p] of rack.passages.entries()) {
        if (p.leftMs !== null) expect(p.leftMs).toBeGreaterThan(p.enteredMs);
        const next = rack.passages[i + 1];
        if (next) expect(next.enteredMs).toBeGreaterThanOrEqual(p.leftMs ?? Number.POSITIVE_INFINITY);
      }
    }
  });
  test("nothing happens after the end, and racks in hand stop where they stand", () => {
    const toMs = 3 * DAY + 11 * HOUR;
    const inHand = [250, 112, 41].map((minutes) => ({ minutes, product: "RAIL" }));
    const now = run({ toMs, inHand });
    for (const rack of now.racks)
      for (const ms of [
        ...rack.passages.flatMap((p) => [p.enteredMs, ...(p.leftMs === null ? [] : [p.leftMs])]),
        ...rack.prep.map((p) => p.atMs),
        ...[rack.coat, rack.film, rack.crossCut, rack.rub, rack.pinholes].flatMap((x) => (x ? [x.atMs] : [])),
        ...(rack.bake ? [rack.bake.closedMs] : []),
      ])
        expect(ms, rack.number).toBeLessThan(toMs);
    const open = now.racks.slice(-3);
    expect(open.map((r) => r.hungMs)).toEqual(inHand.map((h) => toMs - h.minutes * 60_000));
    expect(open.at(-1)?.coat).toBeNull();
    expect(open.at(-1)?.passages.at(-1)?.stage).not.toBe("oven");
  });
  test("readings: three a spot, every spot, about the film aimed at, with each place's own effect", () => {
    const film = line.racks.flatMap((r) => r.film?.readings ?? []);
    const mean = (spot: string) => {
      const values = film.filter((r) => r.spot === spot).map((r) => r.valueUm);
      return values.reduce((a, b) => a + b, 0) / values.length;
    };
    expect(mean("A1")).toBeGreaterThan(72);
    expect(mean("A1")).toBeLessThan(76);
    expect(mean("A1") - mean("A2")).toBeGreaterThan(11);
    expect(mean("A1") - mean("A2")).toBeLessThan(17);
    for (const rack of line.racks) if (rack.film) expect(rack.film.readings).toHaveLength(9);
    for (const reading of film) expect(reading.valueUm).toBeGreaterThanOrEqual(8);
  });
  test("steel is never prebaked; a casting is, or the step is on record as left out", () => {
    for (const rack of line.racks) {
      const prebaked = rack.passages.some((p) => p.stage === "prebake");
      const step = rack.prep.find((p) => p.step === "prebake");
      if (rack.product === "RAIL") expect([prebaked, step], rack.number).toEqual([false, undefined]);
      else if (rack.film) expect(step?.done, rack.number).toBe(prebaked);
    }
  });
});

describe("its stories", () => {
  const window = { lower: 4.8, upper: 5.8 };
  test("without a wrong addition the bath stays in its window; with one it leaves it that day and is put right on the day", () => {
    const calm = run().conversion.checks.map((c) => judgeBathValue(c.ph, window));
    expect(calm).not.toContain("out");
    const wrongAdditionMs = 4 * DAY + 7 * HOUR;
    const putRightMs = 9 * DAY + 9 * HOUR;
    const { conversion } = run({ wrongAdditionMs, putRightMs });
    const out = conversion.checks.filter((c) => judgeBathValue(c.ph, window) === "out");
    expect(out.length).toBeGreaterThan(15);
    for (const check of conversion.checks)
      expect(judgeBathValue(check.ph, window) === "out", String(check.atMs / DAY)).toBe(
        check.atMs >= wrongAdditionMs && check.atMs < putRightMs,
      );
    expect((out[0]?.atMs ?? 0) - wrongAdditionMs).toBeLessThan(5 * HOUR);
    const drums = conversion.events.filter((e) => e.product === "Drum from bay 4");
    expect(drums.map((e) => e.atMs)).toEqual([wrongAdditionMs]);
  });
  test("the racks that met it lose their grip: true cause and cross-cut go together", () => {
    const bad = run({ wrongAdditionMs: 3 * DAY, putRightMs: 9 * DAY });
    const tested = bad.racks.filter((r) => r.crossCut);
    const weak = tested.filter((r) => r.truth.causes.includes("conversion-thin"));
    expect(weak.length).toBeGreaterThan(8);
    for (const rack of tested) {
      const lost = rack.crossCut?.squaresLost ?? 0;
      expect(rack.truth.causes.includes("conversion-thin"), rack.number).toBe(lost > 1);
      if (lost > 1) expect(rack.truth.conversionPh, rack.number).toBeGreaterThan(5.75);
    }
  });
  test("pinholes come from gassy castings that missed their bake, and hardly from others", () => {
    const gassy = run({ gassyDeliveryMs: 0, toMs: 40 * DAY });
    const holed = gassy.racks.filter((r) => (r.pinholes?.pieces ?? 0) > 1);
    expect(holed.length).toBeGreaterThan(5);
    for (const rack of holed) {
      expect(rack.product).toBe("HEAD");
      expect(rack.prep.find((p) => p.step === "prebake")?.done).toBe(false);
      expect(rack.truth.causes).toContain("casting-gas");
    }
    expect(run({ toMs: 40 * DAY }).racks.some((r) => r.pinholes)).toBe(false);
  });
});

describe("the simulated oven", () => {
  const bake = (seed: number, doorToPullS = 2000) =>
    simulateBake(seededRandom(seed), {
      setPointC: 205,
      pieces: [
        { channel: "thin", tauS: 200 },
        { channel: "thick", tauS: 500 },
      ],
      doorToPullS,
      intervalS: 20,
      coolS: 400,
      startC: 21,
    });
  const curve = valueOrThrow(
    fitCureCurve([
      { metalC: 180, minutes: 20 },
      { metalC: 200, minutes: 10 },
    ]),
  );
  const channelOf = (channels: ReturnType<typeof bake>, name: string) => {
    const found = channels.find((c) => c.name === name);
    if (!found) throw new Error(name);
    return found;
  };
  test("metal starts cold, climbs toward the air and never beyond it by more than the noise, and cools after the pull", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9999 }), (seed) => {
        const channels = bake(seed);
        expect(channels.map((c) => [c.name, c.medium])).toEqual([
          ["Air", "air"],
          ["thin", "metal"],
          ["thick", "metal"],
        ]);
        for (const { trace } of channels.filter((c) => c.medium === "metal")) {
          const temps = trace.tempC.map((t) => t ?? Number.NaN);
          expect(Math.abs((temps[0] ?? 0) - 21)).toBeLessThan(2);
          expect(Math.max(...temps)).toBeLessThan(205 + 2);
          const pull = trace.timeS.indexOf(2000);
          expect(temps.at(-1) ?? 0).toBeLessThan((temps[pull] ?? 0) - 20);
        }
      }),
      { numRuns: 30 },
    );
  });
  test("the heavier piece lags: cooler at every quarter of the bake, and less cured at the pull", () => {
    const channels = bake(5);
    const [thin, thick] = [channelOf(channels, "thin"), channelOf(channels, "thick")];
    for (const s of [500, 1000, 1500]) {
      const i = thin.trace.timeS.indexOf(s);
      expect(thick.trace.tempC[i] ?? 0).toBeLessThan(thin.trace.tempC[i] ?? 0);
    }
    const index = (c: typeof thin) => valueOrThrow(cureIndex(c.trace, curve, 140)).index;
    expect(index(thick)).toBeLessThan(index(thin));
  });
  test("longer in the oven is never less cured", () => {
    const indexAt = (doorToPullS: number) =>
      valueOrThrow(cureIndex(channelOf(bake(3, doorToPullS), "thick").trace, curve, 140)).index;
    expect(indexAt(1600)).toBeLessThan(indexAt(2000));
    expect(indexAt(2000)).toBeLessThan(indexAt(2600));
  });
});

describe("its random numbers", () => {
  test("lie in [0, 1), about a mean of a half; normal ones about their mean with their spread", () => {
    const random = seededRandom(9);
    const uniform = Array.from({ length: 20_000 }, random.uniform);
    expect(Math.min(...uniform)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...uniform)).toBeLessThan(1);
    const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
    expect(mean(uniform)).toBeCloseTo(0.5, 1);
    const normal = Array.from({ length: 20_000 }, () => random.normal(10, 2));
    expect(mean(normal)).toBeCloseTo(10, 1);
    expect(Math.sqrt(mean(normal.map((x) => (x - 10) ** 2)))).toBeCloseTo(2, 1);
  });
  test("a pick from nothing is refused, a chance of none and of all is what it says", () => {
    const random = seededRandom(1);
    expect(() => random.pick([])).toThrow(RangeError);
    for (let i = 0; i < 100; i++) expect([random.chance(0), random.chance(1)]).toEqual([false, true]);
  });
});
