import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  advise,
  asNew,
  bakeMinutesFor,
  batchOrConveyor,
  type CoatingSystem,
  costJob,
  type Equipment,
  fitPart,
  hangingOf,
  howManyHang,
  judgeLife,
  lineStagesOf,
  nothingDone,
  orientationsOf,
  type PlannedPart,
  parseIntakeLine,
  parseIntakeList,
  preparationOf,
  routeCard,
  schedule,
  type WorkToPlan,
} from "@/core/plan";
import { valueOrThrow } from "@/core/result";
import { rates } from "../support/rates";

const box = (lengthMm: number, widthMm: number, heightMm: number) => ({ lengthMm, widthMm, heightMm });

describe("fit", () => {
  const place = (role: Equipment["role"], inside: Equipment["inside"], mostKg: number | null = null): Equipment => ({
    code: role,
    name: role,
    role,
    inside,
    mostKg,
  });
  test("six ways to turn a box, three for a square post, one for a cube", () => {
    expect(orientationsOf(box(3, 2, 1))).toHaveLength(6);
    expect(orientationsOf(box(3, 1, 1))).toHaveLength(3);
    expect(orientationsOf(box(1, 1, 1))).toHaveLength(1);
  });
  test("a tall panel that only goes in lying down", () => {
    const fit = valueOrThrow(
      fitPart({ box: box(800, 60, 2400), massKg: 20 }, [
        place("oven", box(6000, 1500, 1800)),
        place("booth", box(4000, 1500, 2100)),
      ]),
    );
    expect(fit.best?.orientation.upMm).toBeLessThan(1800);
    expect(fit.tried.find((t) => t.orientation.upMm === 2400)?.at[0]).toMatchObject({
      fits: false,
      tight: "up",
      clearanceMm: -700,
    });
  });
  test("the margin is wanted on both sides", () => {
    const oven = [place("oven", box(1000, 1000, 1000))];
    expect(valueOrThrow(fitPart({ box: box(900, 900, 900), massKg: 1 }, oven, 50)).best?.clearanceMm).toBe(0);
    expect(valueOrThrow(fitPart({ box: box(901, 900, 900), massKg: 1 }, oven, 50)).best).toBeNull();
    expect(valueOrThrow(fitPart({ box: box(1000, 1000, 1000), massKg: 1 }, oven, 0)).best?.clearanceMm).toBe(0);
  });
  test("too heavy for the hook is said with the kilograms, whatever the size", () => {
    const fit = valueOrThrow(fitPart({ box: box(100, 100, 100), massKg: 60 }, [place("hook", null, 50)]));
    expect(fit.best).toBeNull();
    expect(fit.keptOutBy).toMatchObject([{ role: "hook", overKg: 10, tight: "mass" }]);
  });
  test("of several ways that pass the roomiest is chosen", () => {
    const fit = valueOrThrow(fitPart({ box: box(500, 300, 100), massKg: 5 }, [place("washer", box(2000, 600, 900))]));
    const rooms = fit.tried.filter((t) => t.fitsAll).map((t) => t.clearanceMm);
    expect(fit.best?.clearanceMm).toBe(Math.max(...rooms));
  });
  test("turning the part first changes nothing; a larger oven never refuses what a smaller took", () => {
    const side = fc.integer({ min: 50, max: 3000 });
    fc.assert(
      fc.property(side, side, side, side, side, side, (a, b, c, x, y, z) => {
        const oven = [place("oven", box(x, y, z))];
        const best = (p: ReturnType<typeof box>, e = oven) =>
          valueOrThrow(fitPart({ box: p, massKg: 1 }, e)).best?.clearanceMm ?? null;
        expect(best(box(c, a, b))).toBe(best(box(a, b, c)));
        if (best(box(a, b, c)) !== null)
          expect(best(box(a, b, c), [place("oven", box(x + 10, y + 10, z + 10))])).not.toBeNull();
      }),
    );
  });
  test("two hundred parts against eight places are tried well within a second", () => {
    const places = (["booth", "oven", "washer", "blast-room", "cart", "hook", "rack", "booth"] as const).map((r) =>
      place(r, box(3000, 1500, 2000), 200),
    );
    const start = performance.now();
    for (let i = 0; i < 200; i++)
      valueOrThrow(fitPart({ box: box(100 + i * 10, 50 + i * 5, 500), massKg: i + 1 }, places));
    // Not a benchmark: a guard against something quadratic by mistake.
    expect(performance.now() - start).toBeLessThan(2000);
  });
  test("bad sizes are named", () => {
    expect(fitPart({ box: box(0, 1, 1), massKg: 1 }, [])).toMatchObject({
      error: { kind: "bad-size", name: "lengthMm" },
    });
    expect(fitPart({ box: box(1, 1, 1), massKg: Number.NaN }, [])).toMatchObject({
      error: { kind: "bad-size", name: "massKg" },
    });
    expect(fitPart({ box: box(1, 1, 1), massKg: 1 }, [], -5)).toMatchObject({ error: { kind: "bad-size", value: -5 } });
  });
});

describe("how many hang", () => {
  const orientation = { alongMm: 300, acrossMm: 200, upMm: 400, name: "" };
  const base = {
    orientation,
    massKg: 5,
    rack: { widthMm: 2000, heightMm: 1400, mostKg: 500 },
    oven: { lengthMm: 6000, widthMm: 1500 },
    gapMm: 100,
  };
  test("rows, columns and loads by hand", () => {
    // 2000+100 over 300+100: five in a row; 1400+100 over 400+100: three rows.
    expect(valueOrThrow(howManyHang(base))).toMatchObject({
      perRow: 5,
      rows: 3,
      perRack: 15,
      perMetre: 7.5,
      racksLong: 3,
      racksDeep: 5,
      perOven: 15 * 5 * 3,
    });
  });
  test("the rack's load stops before its room does", () => {
    expect(valueOrThrow(howManyHang({ ...base, massKg: 60 }))).toMatchObject({ perRack: 8, limitedBy: "mass" });
  });
  test("too wide, too tall or too heavy for any", () => {
    expect(howManyHang({ ...base, orientation: { ...orientation, alongMm: 2100 } })).toMatchObject({
      error: { kind: "does-not-fit", along: true },
    });
    expect(howManyHang({ ...base, orientation: { ...orientation, upMm: 1500 } })).toMatchObject({
      error: { kind: "does-not-fit", up: true },
    });
    expect(howManyHang({ ...base, massKg: 501 })).toMatchObject({ error: { kind: "does-not-fit", mass: true } });
    expect(howManyHang({ ...base, gapMm: -1 })).toMatchObject({ error: { kind: "bad-size", value: -1 } });
  });
  test("a wider gap never hangs more", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 0, max: 300 }), (gapMm, more) => {
        const at = (gap: number) => valueOrThrow(howManyHang({ ...base, gapMm: gap })).perRack;
        expect(at(gapMm + more)).toBeLessThanOrEqual(at(gapMm));
      }),
    );
  });
});

describe("hanging", () => {
  const centre = { xMm: 500, yMm: 200 };
  test("two points either side of the weight: level, half each", () => {
    expect(
      valueOrThrow(
        hangingOf(
          [
            { xMm: 100, yMm: 400 },
            { xMm: 900, yMm: 400 },
          ],
          centre,
        ),
      ),
    ).toEqual({ hangs: "level", tiltDeg: 0, lowEnd: null, shares: [0.5, 0.5] });
  });
  test("weight nearer one point: that one carries more", () => {
    const { shares } = valueOrThrow(
      hangingOf(
        [
          { xMm: 400, yMm: 400 },
          { xMm: 900, yMm: 400 },
        ],
        centre,
      ),
    );
    expect(shares[0]).toBeCloseTo(0.8, 12);
    expect(shares[1]).toBeCloseTo(0.2, 12);
  });
  test("both points left of the weight: it tips", () => {
    expect(
      valueOrThrow(
        hangingOf(
          [
            { xMm: 100, yMm: 400 },
            { xMm: 300, yMm: 400 },
          ],
          centre,
        ),
      ).hangs,
    ).toBe("tips");
  });
  test("points below the weight: it turns over", () => {
    expect(
      valueOrThrow(
        hangingOf(
          [
            { xMm: 100, yMm: 100 },
            { xMm: 900, yMm: 100 },
          ],
          centre,
        ),
      ),
    ).toMatchObject({ hangs: "tips", tiltDeg: 180 });
    expect(valueOrThrow(hangingOf([{ xMm: 500, yMm: 0 }], centre)).hangs).toBe("tips");
  });
  test("one point: it swings until the weight is under it", () => {
    expect(valueOrThrow(hangingOf([{ xMm: 500, yMm: 400 }], centre))).toMatchObject({ hangs: "level", tiltDeg: 0 });
    expect(valueOrThrow(hangingOf([{ xMm: 700, yMm: 400 }], centre))).toMatchObject({ hangs: "tilts", tiltDeg: 45 });
  });
  test("none, or two in one place, is refused", () => {
    expect(hangingOf([], centre)).toMatchObject({ error: { kind: "no-hang-points" } });
    expect(
      hangingOf(
        [
          { xMm: 5, yMm: 400 },
          { xMm: 5, yMm: 300 },
        ],
        centre,
      ),
    ).toMatchObject({ error: { kind: "points-in-one-place" } });
  });
});

const bracket: PlannedPart = {
  substrate: "hot-rolled-steel",
  features: [],
  box: box(400, 300, 200),
  thinnestMm: 4,
  thickestMm: 6,
  massKg: 9,
  areaM2: 0.5,
  lapM: 0,
};

const sheet = [
  { metalC: 180, minutes: 20 },
  { metalC: 190, minutes: 15 },
  { metalC: 200, minutes: 10 },
];
const top = { specificGravity: 1.6, perKg: 8, schedule: sheet };

describe("quantity and cost", () => {
  const job = (over: Partial<Parameters<typeof costJob>[0]> = {}, system: Partial<CoatingSystem> = {}) =>
    costJob({
      part: bracket,
      pieces: 100,
      system: { ...nothingDone, ...system },
      top,
      primer: null,
      rates,
      perOven: 40,
      edgeM: 2,
      ...over,
    });
  test("powder by hand: 50 m² at 75 µm and 1.6 through 60 % and 5 % loss", () => {
    expect(valueOrThrow(job()).powderKg).toBeCloseTo((50 * 75 * 1.6e-3) / (0.6 * 0.95), 9);
  });
  test("lines add up to the cost, the margin to the price, the price to each piece", () => {
    const c = valueOrThrow(job({}, { preparation: "blast", pretreatment: "iron-phosphate" }));
    expect(c.lines.reduce((a, l) => a + l.cost, 0)).toBeCloseTo(c.cost, 9);
    expect(c.price).toBeCloseTo(c.cost * 1.25, 9);
    expect(c.perPiece).toBeCloseTo(c.price / 100, 9);
    const line = (code: string) => c.lines.find((l) => l.code === code);
    // 50 m² at 10 m²/h and 50 an hour; at 40 m²/h and 60 an hour.
    expect(line("blast")).toMatchObject({ quantity: 50, hours: 5, cost: 250 });
    expect(line("wash")).toMatchObject({ hours: 1.25, cost: 75 });
    expect(line("handling")).toMatchObject({ quantity: 100, hours: 5, cost: 150 });
  });
  test("edges that nobody measured are those of the box, and it says so; an old coating taken off has its hours and what it uses", () => {
    const line = (code: string, over: object) =>
      valueOrThrow(job(over, { breakEdges: true })).lines.find((l) => l.code === code);
    // 2 m a piece at 20 m/h; of a box of 400 × 300 × 200 mm four times 0.9 m.
    expect(line("edges", {})).toMatchObject({ quantity: 200, hours: 10, cost: 300 });
    expect(line("edges", { edgeM: null })).toMatchObject({ quantity: 360, hours: 18, cost: 540 });
    expect(valueOrThrow(job({ edgeM: null })).edges).toEqual({ metres: 3.6, ofBox: true });
    expect(valueOrThrow(job()).edges).toEqual({ metres: 2, ofBox: false });
    expect(job({ edgeM: -1 })).toMatchObject({ error: { kind: "bad-input", name: "edgeM" } });
    // 50 m² at 5 m²/h and 30 an hour, and 4 a square metre.
    expect(line("strip", { strip: true })).toMatchObject({ quantity: 50, hours: 10, cost: 500 });
    expect(line("strip", {})).toBeUndefined();
  });
  test("each thing done is a line of its own, and what is not done is none", () => {
    const codes = (system: Partial<CoatingSystem>, over = {}) =>
      valueOrThrow(job(over, system)).lines.map((l) => l.code);
    expect(codes({})).toEqual(["powder", "spray", "oven", "handling"]);
    expect(codes({ breakEdges: true })).toContain("edges");
    expect(codes({}, { strip: true })).toContain("strip");
    expect(codes({ outgas: true })).toContain("outgas");
    expect(codes({ sealSeams: true }, { part: { ...bracket, lapM: 1.5 } })).toContain("sealer");
    expect(codes({ primer: "zinc", primerUm: [50, 80] }, { primer: { ...top, specificGravity: 2.8 } })).toContain(
      "primer",
    );
  });
  test("a primer in the system without a powder for it is refused", () => {
    expect(job({}, { primer: "zinc", primerUm: [50, 80] })).toMatchObject({ error: { kind: "no-primer-powder" } });
  });
  test("heavier section, longer bake; the sheet's time is the least", () => {
    const minutes = (thickestMm: number) =>
      valueOrThrow(bakeMinutesFor({ substrate: "hot-rolled-steel", thickestMm }, sheet));
    expect(minutes(2)).toBeGreaterThan(15);
    expect(minutes(25)).toBeGreaterThan(minutes(6));
    // τ = 7850·490·0.003/25 = 461.6 s for 6 mm; to 190 °C in air of 200 °C from 20 °C: τ ln 18; then the curve's minutes at 190.
    expect(minutes(6)).toBeCloseTo((461.58 * Math.log(18)) / 60 + 14.3, 0);
  });
  test("more pieces never cost less, and never more each", () => {
    let before = valueOrThrow(job({ pieces: 40 }));
    for (const pieces of [80, 120, 400]) {
      const now = valueOrThrow(job({ pieces }));
      expect(now.cost).toBeGreaterThan(before.cost);
      expect(now.perPiece).toBeLessThanOrEqual(before.perPiece + 1e-9);
      before = now;
    }
  });
  test.each([
    ["no pieces", { pieces: 0 }, { kind: "bad-count" }],
    ["half a piece", { pieces: 1.5 }, { kind: "bad-count" }],
    [
      "a rate under zero",
      { rates: { ...rates, ovenPerHour: -1 } },
      { kind: "negative-price", name: "ovenPerHour", value: -1 },
    ],
    ["a powder price under zero", { top: { ...top, perKg: -3 } }, { kind: "negative-price", name: "topPerKg" }],
    ["no oven room", { perOven: 0 }, { kind: "bad-count" }],
  ])("%s is refused by name", (_, over, error) => {
    expect(job(over)).toMatchObject({ ok: false, error });
  });
  test("batch against conveyor", () => {
    const both = valueOrThrow(
      batchOrConveyor({ pieces: 90, perOven: 45, perMetre: 3, bakeMinutes: 30, conveyorM: 15, rates }),
    );
    expect(both).toMatchObject({ batchHours: 1, batchCost: 45, speedMPerMin: 0.5, cheaper: "batch" });
    // 30 m of hung pieces and 15 m of oven at 0.5 m/min: 90 min.
    expect(both.conveyorHours).toBeCloseTo(1.5, 9);
    expect(
      valueOrThrow(batchOrConveyor({ pieces: 900, perOven: 10, perMetre: 9, bakeMinutes: 30, conveyorM: 15, rates }))
        .cheaper,
    ).toBe("conveyor");
    expect(batchOrConveyor({ pieces: 0, perOven: 1, perMetre: 1, bakeMinutes: 1, conveyorM: 1, rates })).toMatchObject({
      error: { kind: "bad-size", name: "pieces" },
    });
  });
});

describe("a life asked for", () => {
  const life = (from: number, to: number) => ({
    years: { from, to },
    limitedBy: "rust" as const,
    rust: { from, to },
    colour: { from, to },
    basis: "",
    grade: "assumed" as const,
  });
  test.each([
    [3, "in"],
    [4, "watch"],
    [5, "watch"],
    [5.1, "out"],
    [null, "unknown"],
  ] as const)("%s years on a system that stands 3 to 5: %s", (asked, result) => {
    expect(judgeLife(asked, life(3, 5))).toBe(result);
  });
});

describe("route card", () => {
  const card = (part: Partial<PlannedPart>, system: Partial<CoatingSystem>, condition = asNew, masks = 0) =>
    routeCard({
      part: { ...bracket, ...part },
      condition,
      system: { ...nothingDone, ...system },
      cureMetalC: 190,
      cureMinutes: 15,
      blastProfileUm: [35, 60],
      contactS: [60, 120],
      masks,
    });
  const codes = (...args: Parameters<typeof card>) => card(...args).map((s) => s.code);
  test("an ordinary outdoor job, in order", () => {
    expect(codes({}, { preparation: "blast", pretreatment: "iron-phosphate" })).toEqual([
      "degrease",
      "blast",
      "look-over",
      "blow-off",
      "wash",
      "conversion",
      "rinse",
      "dry-off",
      "top-coat",
      "cure",
      "film",
      "adhesion",
      "rub",
      "release",
    ]);
  });
  test("what a card asks of the metal is its own steps and the proofs its checks name, in working order", () => {
    const asked = (...args: Parameters<typeof card>) => preparationOf(card(...args));
    expect(asked({}, { preparation: "blast", pretreatment: "iron-phosphate", breakEdges: true, outgas: true })).toEqual(
      ["degrease", "break-edges", "blast", "look-over", "blow-off", "dust-tape", "prebake"],
    );
    // Not washed, so wiped; not blasted, so no tape.
    expect(asked({}, { preparation: "sand" })).toEqual(["degrease", "sand", "blow-off", "solvent-wipe"]);
    expect(asked({ features: ["tumbled"] }, { pretreatment: "wash" })).toEqual(["degrease", "blow-off", "water-break"]);
    expect(asked({ features: ["fit-surface"] }, { pretreatment: "wash" })).toEqual(["blow-off", "masks-in"]);
    expect(asked({}, { pretreatment: "wash" }, asNew, 4)).toEqual(["blow-off", "masks-in"]);
    expect(
      asked(
        { features: ["rubber-or-seals"] },
        { preparation: "sand", pretreatment: "wash" },
        { ...asNew, oldCoating: "known", weldSpatter: true },
      ),
    ).toEqual(["strip", "seals-out", "degrease", "grind", "sand", "blow-off"]);
    // What was declined is not asked, whatever the metal would like.
    expect(asked({ substrate: "cast-aluminium", features: ["sharp-edges"] }, { pretreatment: "wash" })).toEqual([
      "blow-off",
    ]);
    // A scuff between two coats belongs to the second: nothing of it holds the first powder up.
    expect(asked({}, { pretreatment: "wash", coats: 2 })).toEqual(["blow-off"]);
  });
  test("seals come out before anything, and work waits for it", () => {
    const steps = card({ features: ["rubber-or-seals"] }, { preparation: "blast" });
    expect(steps[0]).toMatchObject({ code: "seals-out", hold: true });
  });
  test("edges before the blast, gas out hotter than the cure and before powder, sealer after the wash", () => {
    const order = codes(
      { lapM: 2 },
      { preparation: "blast", breakEdges: true, outgas: true, sealSeams: true, pretreatment: "zirconium" },
    );
    const at = (code: string) => order.indexOf(code as never);
    expect(at("break-edges")).toBeLessThan(at("blast"));
    expect(at("outgas-bake")).toBeGreaterThan(at("dry-off"));
    expect(at("seam-seal")).toBeGreaterThan(at("dry-off"));
    expect(at("seam-seal")).toBeLessThan(at("top-coat"));
    const bake = card({}, { outgas: true }).find((s) => s.code === "outgas-bake");
    expect(bake?.parameters[0]).toEqual({ name: "metal", lower: 205, upper: 220, unit: "°C" });
  });
  test("how a primer is cured is on the card", () => {
    const primer = { primer: "zinc", primerUm: [50, 80] } as const;
    expect(codes({}, { ...primer, curing: "primer-gelled" })).toEqual(
      expect.arrayContaining(["primer", "gel-primer", "top-coat", "cure"]),
    );
    expect(codes({}, { ...primer, curing: "dry-on-dry" }).filter((c) => c === "cure" || c === "gel-primer")).toEqual([
      "cure",
    ]);
    const full = codes({}, { ...primer, curing: "two-full-cures" });
    expect(full.indexOf("scuff")).toBeGreaterThan(full.indexOf("cure-primer"));
    expect(full.indexOf("scuff")).toBeLessThan(full.indexOf("top-coat"));
  });
  test("pitted metal is a hold after the blast: the customer is told first", () => {
    expect(card({}, { preparation: "blast" }, { ...asNew, rust: "D" }).find((s) => s.code === "blast")).toMatchObject({
      hold: true,
      checks: ["profile", "dust", "pitting-told"],
    });
  });
  test("what goes in is counted out", () => {
    const steps = card({ features: ["threads"] }, {}, asNew, 6);
    expect(steps.find((s) => s.code === "masks-in")?.parameters[0]).toMatchObject({ lower: 6, upper: 6 });
    expect(steps.find((s) => s.code === "plugs-out")?.checks).toEqual(["count-out"]);
  });
  test("release always waits for a signature, and comes last", () => {
    for (const system of [{}, { preparation: "blast" }, { primer: "zinc", primerUm: [50, 80] }] as const)
      expect(card({}, system).at(-1)).toMatchObject({ code: "release", hold: true });
  });
  test("the line's stages in order, once each, as the trace reads them", () => {
    expect(
      lineStagesOf(
        card(
          {},
          {
            preparation: "blast",
            pretreatment: "iron-phosphate",
            outgas: true,
            primer: "zinc",
            primerUm: [50, 80],
            curing: "primer-gelled",
          },
        ),
      ),
    ).toEqual(["blast", "clean", "conversion", "rinse", "dry-off", "prebake", "booth", "oven"]);
  });
  test("every advised system has a card that ends in a release", () => {
    const advice = valueOrThrow(
      advise(bracket, asNew, { exposure: ["weather", "salt"], lifeYears: 10, finish: "standard", serviceC: null }),
    );
    for (const a of [advice.recommended, advice.cheaper, advice.better])
      if (a) expect(card({}, a.system).filter((s) => s.code === "cure").length).toBe(a.system.coats);
  });
});

describe("intake by line", () => {
  test("name, metal, size and bare numbers in order", () => {
    expect(valueOrThrow(parseIntakeLine("Lamp head,cast aluminium,400x300x250,8,4.2,0.6,20"))).toMatchObject({
      name: "Lamp head",
      substrate: "cast-aluminium",
      box: box(400, 300, 250),
      thickestMm: 8,
      thinnestMm: 8,
      massKg: 4.2,
      areaM2: 0.6,
      pieces: 20,
      assumed: [],
    });
  });
  test("units let a value stand anywhere; words add what the part has", () => {
    expect(
      valueOrThrow(parseIntakeLine("Bench; steel; x6; 0.9m2; 1800x400x450; 3-8; 22kg; laser; laps 2.4; threads")),
    ).toMatchObject({
      pieces: 6,
      thinnestMm: 3,
      thickestMm: 8,
      massKg: 22,
      areaM2: 0.9,
      lapM: 2.4,
      features: expect.arrayContaining(["thermal-cut-edges", "open-lap-seam", "threads"]),
    });
  });
  test.each([
    ["plate", "hot-rolled-steel"],
    ["sheet", "cold-rolled-steel"],
    ["alu", "aluminium"],
    ["cast alu", "cast-aluminium"],
    ["galvanised", "galvanised"],
    ["ss", "stainless"],
    ["cast iron", "cast-iron"],
  ])("“%s” is %s", (word, substrate) => {
    expect(valueOrThrow(parseIntakeLine(`P,${word},400x300x200,5`)).substrate).toBe(substrate);
  });
  test("centimetres, metres and inches", () => {
    for (const size of ["40x30x20cm", "0.4x0.3x0.2m", "400x300x200"])
      expect(valueOrThrow(parseIntakeLine(`P,steel,${size},5`)).box.lengthMm).toBeCloseTo(400, 9);
    expect(valueOrThrow(parseIntakeLine("P,steel,10x10x10in,5")).box.lengthMm).toBe(254);
  });
  test("area added up from simple shapes", () => {
    const read = valueOrThrow(
      parseIntakeLine("Frame,steel,1000x60x800,4,9,2 tube 60x1000,2 tube 60x800,plate 400x300,x3"),
    );
    expect(read.areaM2).toBeCloseTo(2 * Math.PI * 0.06 + 2 * Math.PI * 0.06 * 0.8 + 2 * 0.12, 9);
    expect(read).toMatchObject({ pieces: 3, massKg: 9, substrate: "hot-rolled-steel", assumed: [] });
    expect(valueOrThrow(parseIntakeLine("Beam,steel,2000x60x40,3,12,rhs 60x40x2000")).areaM2).toBeCloseTo(0.4, 9);
    expect(valueOrThrow(parseIntakeLine("Knob,cast iron,120x120x120,60,6,ball 120")).areaM2).toBeCloseTo(
      Math.PI * 0.0144,
      9,
    );
    expect(parseIntakeLine("Beam,steel,2000x60x40,3,12,rhs 60x40")).toMatchObject({
      error: { kind: "unknown-part-word" },
    });
  });
  test("what is left out is assumed, and said so", () => {
    const read = valueOrThrow(parseIntakeLine("Box,sheet,400x300x200,2"));
    expect(read.assumed).toEqual(["massKg", "areaM2"]);
    expect(read.areaM2).toBeCloseTo(0.52, 12);
    expect(read.massKg).toBeCloseTo(0.52 * 0.002 * 7850, 6);
  });
  test.each([
    ["", { kind: "empty" }],
    ["Bracket", { kind: "part-without", what: "its metal" }],
    ["Bracket,steel", { kind: "part-without" }],
    ["Bracket,steel,400x300x200", { kind: "part-without", what: "its thickest section, mm" }],
    ["Bracket,oak,400x300x200,5", { kind: "unknown-part-word", word: "oak", at: 2 }],
    ["Bracket,steel,400x300x200,5,900", { kind: "mass-beyond-box" }],
    ["Bracket,steel,400x300x200,5,9,0.01", { kind: "area-under-face" }],
    ["Bracket,steel,400x300x200,5,9,0.5,2.5", { kind: "bad-count", pieces: 2.5 }],
    ["Bracket,steel,0x300x200,5", { kind: "bad-size" }],
    ["Bracket,steel,400x300x200,5,9,0.5,4,7", { kind: "unknown-part-word", word: "7" }],
  ])("“%s” says what is wrong", (line, error) => {
    expect(parseIntakeLine(line)).toMatchObject({ ok: false, error });
  });
  test("a list: each line taken or named, a heading passed over, none dropped", () => {
    const list = valueOrThrow(
      parseIntakeList("name,metal,size,thick\nPost,steel,2000x80x80,4\n\nLamp,glass,1x1x1,1\nCap,alu,100x100x20,3\n"),
    );
    expect(list.parts.map((p) => [p.line, p.name])).toEqual([
      [2, "Post"],
      [5, "Cap"],
    ]);
    expect(list.problems).toMatchObject([
      { line: 4, text: "Lamp,glass,1x1x1,1", failure: { kind: "unknown-part-word", word: "glass" } },
    ]);
    expect(parseIntakeList(Array(501).fill("a").join("\n"))).toMatchObject({
      error: { kind: "too-many-lines", got: 501 },
    });
  });
  test("whatever is typed, it answers with a part or a named failure", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), (text) => {
        const read = parseIntakeLine(text);
        if (read.ok) expect(Number.isFinite(read.value.areaM2) && read.value.massKg > 0).toBe(true);
        else expect(read.error.kind).toBeTruthy();
      }),
    );
  });
  test("at most twelve keystrokes beyond the part's own words and numbers", () => {
    for (const line of ["Lamp head,cast alu,400x300x250,8,4.2,0.6,20", "Post,steel,2000x80x80,4,12,0.7,6"]) {
      const own = line.split(/[,x]/).join("").length;
      expect(line.length + 1 - own).toBeLessThanOrEqual(12);
    }
  });
});

describe("schedule", () => {
  const work = (job: string, over: Partial<WorkToPlan> = {}): WorkToPlan => ({
    job,
    hours: { wash: 1, booth: 2, oven: 1 },
    colour: "grey",
    cureGroup: "190",
    dueInHours: null,
    pinnedAtHour: null,
    ...over,
  });
  const plan = (jobs: WorkToPlan[], options = {}) => valueOrThrow(schedule(jobs, options));
  const noOverlap = (s: ReturnType<typeof plan>) => {
    for (const stage of ["blast", "wash", "booth", "oven"] as const) {
      const bars = s.jobs
        .flatMap((j) => j.stages.filter((x) => x.stage === stage))
        .sort((a, b) => a.fromHour - b.fromHour);
      for (let i = 1; i < bars.length; i++)
        expect(bars[i]?.fromHour).toBeGreaterThanOrEqual((bars[i - 1]?.toHour ?? 0) - 1e-9);
    }
  };
  test("one job goes straight through its stages in order", () => {
    const s = plan([work("A", { hours: { oven: 1, blast: 3, booth: 2 } })]);
    expect(s.jobs[0]?.stages).toEqual([
      { stage: "blast", fromHour: 0, toHour: 3 },
      { stage: "booth", fromHour: 3, toHour: 5 },
      { stage: "oven", fromHour: 5, toHour: 6 },
    ]);
  });
  test("the sooner due goes first; who is late is named with the hours", () => {
    const s = plan([
      work("late", { dueInHours: 40 }),
      work("soon", { dueInHours: 5 }),
      work("hopeless", { dueInHours: 1 }),
    ]);
    expect(s.jobs.map((j) => j.job)).toEqual(["hopeless", "soon", "late"]);
    expect(s.conflicts).toEqual(expect.arrayContaining([{ kind: "late", job: "hopeless", hours: 3 }]));
    expect(s.jobs.find((j) => j.job === "late")?.lateHours).toBe(0);
  });
  test("colours are kept together where nothing is late for it", () => {
    const mixed = plan([work("g1"), work("y1", { colour: "yellow" }), work("g2"), work("y2", { colour: "yellow" })], {
      colourNow: "grey",
    });
    expect(mixed.colourChanges).toBe(1);
    expect(mixed.jobs.find((j) => j.job === "g2")?.because).toBe("same-colour");
  });
  test("not for a job much less urgent than the one waiting", () => {
    const s = plan([work("grey", { dueInHours: 200 }), work("yellow", { colour: "yellow", dueInHours: 6 })], {
      colourNow: "grey",
    });
    expect(s.jobs[0]?.job).toBe("yellow");
    expect(s.jobs[0]?.because).toBe("due-first");
  });
  test("a colour change costs the booth its time", () => {
    const s = plan([work("g", { hours: { booth: 2 } }), work("y", { hours: { booth: 2 }, colour: "yellow" })], {
      colourNow: "grey",
      colourChangeHours: 0.5,
    });
    expect(s.jobs[1]?.stages[0]?.fromHour).toBe(2.5);
  });
  test("what a person pinned is not moved; what does not fit beside it is named", () => {
    const s = plan([work("free"), work("a", { pinnedAtHour: 10 }), work("b", { pinnedAtHour: 10.5 })]);
    expect(s.jobs.find((j) => j.job === "a")?.stages[0]?.fromHour).toBe(10);
    expect(s.jobs.find((j) => j.job === "b")?.stages[0]?.fromHour).toBe(10.5);
    expect(s.conflicts).toEqual(
      expect.arrayContaining([expect.objectContaining({ kind: "overlap", job: "b", with: "a" })]),
    );
    expect(s.jobs.find((j) => j.job === "free")?.pinned).toBe(false);
  });
  test("nothing that was not pinned overlaps, whatever the jobs", () => {
    const jobs = fc.array(
      fc.record({
        booth: fc.integer({ min: 1, max: 6 }),
        oven: fc.integer({ min: 1, max: 4 }),
        wash: fc.integer({ min: 1, max: 3 }),
        colour: fc.constantFrom("grey", "yellow", "green"),
        due: fc.option(fc.integer({ min: 1, max: 100 }), { nil: null }),
      }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(jobs, (list) => {
        const s = plan(
          list.map((j, i) =>
            work(String(i), {
              hours: { wash: j.wash, booth: j.booth, oven: j.oven },
              colour: j.colour,
              dueInHours: j.due,
            }),
          ),
        );
        expect(s.jobs).toHaveLength(list.length);
        noOverlap(s);
        for (const job of s.jobs)
          for (let i = 1; i < job.stages.length; i++)
            expect(job.stages[i]?.fromHour).toBeGreaterThanOrEqual(job.stages[i - 1]?.toHour ?? 0);
      }),
    );
  });
  test("bad work is named", () => {
    expect(schedule([work("A"), work("A")])).toMatchObject({ error: { kind: "twice", job: "A" } });
    expect(schedule([work("A", { hours: {} })])).toMatchObject({ error: { kind: "no-work" } });
    expect(schedule([work("A", { hours: { booth: 0 } })])).toMatchObject({
      error: { kind: "bad-hours", stage: "booth" },
    });
    expect(schedule([work("A", { pinnedAtHour: -3 })])).toMatchObject({ error: { kind: "in-the-past", hour: -3 } });
    expect(plan([]).jobs).toEqual([]);
  });
});
