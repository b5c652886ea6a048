import { describe, expect, test } from "vitest";
import { loadKnowledge } from "@/core/diagnosis";
import {
  advise,
  areaOfShapesM2,
  asNew,
  type Condition,
  checkPart,
  expectedLife,
  knownRisks,
  nothingDone,
  type PlannedPart,
  readRisks,
  refusals,
  relativeCost,
  routeCard,
  type Service,
} from "@/core/plan";
import { howWarnings, prepHow, stepsAskedFor } from "@/core/preparation";
import { valueOrThrow } from "@/core/result";

const bracket: PlannedPart = {
  substrate: "hot-rolled-steel",
  features: [],
  box: { lengthMm: 400, widthMm: 300, heightMm: 200 },
  thinnestMm: 4,
  thickestMm: 6,
  massKg: 9,
  areaM2: 0.4,
  lapM: 0,
};
const part = (over: Partial<PlannedPart> = {}): PlannedPart => ({ ...bracket, ...over });
const condition = (over: Partial<Condition> = {}): Condition => ({ ...asNew, ...over });
const service = (exposure: Service["exposure"], over: Partial<Service> = {}): Service => ({
  exposure,
  lifeYears: null,
  finish: "standard",
  serviceC: null,
  ...over,
});
const system = (p: PlannedPart, c: Condition, s: Service) => valueOrThrow(advise(p, c, s)).recommended.system;

describe("twenty-five pieces of work, and what a good coater would do", () => {
  const cases: [string, PlannedPart, Condition, Service, object, string][] = [
    [
      "indoor shelf bracket, bright sheet",
      part({ substrate: "cold-rolled-steel" }),
      asNew,
      service(["indoor"]),
      { preparation: "wipe", pretreatment: "wash", primer: "none", family: "hybrid" },
      "indoors nothing rusts it and nothing chalks it",
    ],
    [
      "indoor frame of scaly plate",
      part(),
      condition({ scale: true }),
      service(["indoor"]),
      { preparation: "blast", primer: "none", family: "hybrid" },
      "scale lets go indoors too",
    ],
    [
      "gate, hot-rolled, weather",
      part(),
      asNew,
      service(["weather"]),
      { preparation: "blast", pretreatment: "iron-phosphate", primer: "none", family: "polyester" },
      "blasted and phosphated is the ordinary outdoor system",
    ],
    [
      "gate, bright cold-rolled, weather",
      part({ substrate: "cold-rolled-steel" }),
      asNew,
      service(["weather"]),
      { preparation: "sand", pretreatment: "iron-phosphate", primer: "none" },
      "no scale to blast off; a scratch to hold",
    ],
    [
      "ferry seat: coast, knocks",
      part({ features: ["sharp-edges"] }),
      asNew,
      service(["weather", "coast", "knocks"]),
      { preparation: "blast", breakEdges: true, primer: "zinc", curing: "primer-gelled" },
      "what is knocked by the sea wants zinc under it",
    ],
    [
      "shelter bench with laps, street salt",
      part({ lapM: 2.4 }),
      asNew,
      service(["weather", "salt"]),
      { sealSeams: true, primer: "zinc" },
      "open laps weep where salt reaches them",
    ],
    [
      "bin housing, laser-cut, weather",
      part({ features: ["thermal-cut-edges"] }),
      asNew,
      service(["weather"]),
      { breakEdges: true, preparation: "blast" },
      "the hard skin of a thermal edge holds nothing",
    ],
    [
      "laser-cut but indoors",
      part({ features: ["thermal-cut-edges"] }),
      asNew,
      service(["indoor"]),
      { breakEdges: false },
      "indoors the edge does not rust",
    ],
    [
      "rusty gate, grade C, weather",
      part(),
      condition({ rust: "C" }),
      service(["weather"]),
      { preparation: "blast" },
      "rust is never coated over",
    ],
    [
      "lamp head, cast aluminium, sun",
      part({ substrate: "cast-aluminium", massKg: 4, thickestMm: 8 }),
      asNew,
      service(["weather", "sun"]),
      { outgas: true, pretreatment: "zirconium", primer: "none", family: "polyester" },
      "castings give gas; light metal has its own conversion coat",
    ],
    [
      "cast iron grille, weather",
      part({ substrate: "cast-iron" }),
      asNew,
      service(["weather"]),
      { outgas: true, preparation: "sand" },
      "cast iron holds gas and rusts",
    ],
    [
      "galvanised post, weather",
      part({ substrate: "galvanised" }),
      asNew,
      service(["weather"]),
      { outgas: true, preparation: "sand", pretreatment: "zirconium", primer: "none" },
      "swept, not blasted; the zinc is the primer; gas out first",
    ],
    [
      "galvanised rail by the sea",
      part({ substrate: "galvanised" }),
      asNew,
      service(["weather", "coast"]),
      { primer: "epoxy", outgas: true },
      "salt eats zinc: a barrier over it, no zinc on zinc",
    ],
    [
      "aluminium sign, full sun, no life named",
      part({ substrate: "aluminium", massKg: 3 }),
      asNew,
      service(["weather", "sun"]),
      { family: "polyester", preparation: "wipe", pretreatment: "zirconium" },
      "standard grade where no one asks for more",
    ],
    [
      "aluminium sign, sun, eight years",
      part({ substrate: "aluminium", massKg: 3 }),
      asNew,
      service(["weather", "sun"], { lifeYears: 8 }),
      { family: "polyester-high-weathering" },
      "a standard grade does not keep colour so long",
    ],
    [
      "facade fin, sun, twenty years",
      part({ substrate: "aluminium", massKg: 3 }),
      asNew,
      service(["weather", "sun"], { lifeYears: 20 }),
      { family: "fluoropolymer", topUm: [50, 80] },
      "only a fluoropolymer lasts that long in sun",
    ],
    [
      "beach shower, sun and coast",
      part({ substrate: "stainless" }),
      asNew,
      service(["sun", "coast"]),
      { family: "polyester-high-weathering", preparation: "sand" },
      "sun and salt together want the higher grade",
    ],
    [
      "charger enclosure, knocks and salt",
      part({ substrate: "cold-rolled-steel", thickestMm: 2, thinnestMm: 2, massKg: 6 }),
      asNew,
      service(["weather", "salt", "knocks"]),
      { primer: "zinc", preparation: "blast" },
      "a primer needs a blast under it",
    ],
    [
      "machine guard, knocks, indoors",
      part({ substrate: "cold-rolled-steel" }),
      asNew,
      service(["indoor", "knocks"]),
      { primer: "none", family: "hybrid" },
      "a chip indoors does not creep",
    ],
    [
      "laboratory shelf, chemicals indoors",
      part({ substrate: "cold-rolled-steel" }),
      asNew,
      service(["indoor", "chemicals"]),
      { family: "epoxy" },
      "epoxy stands chemicals and sees no sun",
    ],
    [
      "bus stop panel, anti-graffiti",
      part({ substrate: "cold-rolled-steel" }),
      asNew,
      service(["weather", "chemicals"]),
      { family: "polyurethane" },
      "polyurethane stands the cleaner and the weather",
    ],
    [
      "exhaust shield, 400 °C",
      part({ substrate: "stainless" }),
      asNew,
      service(["indoor", "heat"], { serviceC: 400 }),
      { family: "silicone", topUm: [25, 50] },
      "only silicone stands the heat, and thin",
    ],
    [
      "clear over bright aluminium, indoors",
      part({ substrate: "aluminium", massKg: 3 }),
      asNew,
      service(["indoor"], { finish: "clear" }),
      { family: "polyester" },
      "a polyester clear: acrylic dust craters everything else",
    ],
    [
      "restored gate, old coating unknown",
      part(),
      condition({ oldCoating: "unknown" }),
      service(["weather"]),
      { preparation: "blast" },
      "what nobody knows comes off",
    ],
    [
      "gate asked to last ten years",
      part(),
      asNew,
      service(["weather"], { lifeYears: 10 }),
      { primer: "zinc", preparation: "blast" },
      "one coat does not keep edges ten years",
    ],
    [
      "post where snow lies",
      part(),
      asNew,
      service(["weather", "standing-water"]),
      { primer: "zinc" },
      "what stays wet rusts first",
    ],
  ];
  test.each(cases)("%s", (_, p, c, s, expected) => {
    expect(system(p, c, s)).toMatchObject(expected);
  });
  test("there are more than twenty-five, each with its reason", () => {
    expect(cases.length).toBeGreaterThanOrEqual(25);
    for (const [name, , , , , why] of cases) expect(why.length, name).toBeGreaterThan(15);
  });
  test("what is recommended is never refused, unless the part itself must be changed", () => {
    for (const [name, p, c, s] of cases) {
      const advice = valueOrThrow(advise(p, c, s));
      for (const each of [advice.recommended, advice.cheaper, advice.better])
        if (each) expect(refusals(p, s, each.system), name).toEqual([]);
    }
  });
  test("the cheaper one costs less and lasts no longer; the better one costs more and lasts no shorter", () => {
    for (const [name, p, c, s] of cases) {
      const { recommended, cheaper, better } = valueOrThrow(advise(p, c, s));
      if (cheaper) {
        expect(cheaper.relativeCost, name).toBeLessThan(recommended.relativeCost);
        expect(cheaper.life.rust.to, name).toBeLessThanOrEqual(recommended.life.rust.to);
        expect(cheaper.life.colour.to, name).toBeLessThanOrEqual(recommended.life.colour.to);
        expect(cheaper.changes, name).toHaveLength(1);
      }
      if (better) {
        expect(better.relativeCost, name).toBeGreaterThan(recommended.relativeCost);
        expect(better.life.rust.to, name).toBeGreaterThanOrEqual(recommended.life.rust.to);
      }
    }
  });
});

describe("schools", () => {
  const s = service(["weather", "salt"]);
  test("the site's choice of conversion, of curing a primer, of outgassing", () => {
    const of = (schools: object) =>
      valueOrThrow(
        advise(bracket, asNew, s, {
          conversion: "iron-phosphate",
          primerCuring: "primer-gelled",
          outgasAlwaysForCastings: true,
          preparation: "blast",
          ...schools,
        }),
      ).recommended.system;
    expect(of({ conversion: "zirconium" }).pretreatment).toBe("zirconium");
    expect(of({ primerCuring: "dry-on-dry" }).curing).toBe("dry-on-dry");
    const casting = part({ substrate: "cast-aluminium", massKg: 4 });
    const cast = valueOrThrow(
      advise(casting, asNew, service(["indoor"]), {
        conversion: "iron-phosphate",
        primerCuring: "primer-gelled",
        outgasAlwaysForCastings: false,
        preparation: "blast",
      }),
    );
    expect(cast.recommended.system.outgas).toBe(false);
    expect(cast.recommended.risks.map((r) => r.id)).toContain("casting-gas");
  });
  test("a school that sands does not sand over scale outdoors", () => {
    const sanding = {
      conversion: "iron-phosphate",
      primerCuring: "primer-gelled",
      outgasAlwaysForCastings: true,
      preparation: "sand",
    } as const;
    expect(
      valueOrThrow(advise(bracket, condition({ scale: true }), service(["weather"]), sanding)).recommended.system
        .preparation,
    ).toBe("blast");
    expect(valueOrThrow(advise(bracket, asNew, service(["weather"]), sanding)).recommended.system.preparation).toBe(
      "sand",
    );
  });
});

describe("what cannot work is refused with its values", () => {
  const out = service(["weather", "sun"]);
  test.each([
    ["epoxy as the outer coat in daylight", { family: "epoxy" }, out, "epoxy-outer-in-daylight"],
    ["an indoor hybrid outdoors", { family: "hybrid" }, out, "hybrid-outdoors"],
    ["TGIC-free built thick", { family: "polyester-tgic-free", topUm: [80, 130] }, out, "too-thick-for-family"],
    ["polyester on an exhaust", {}, service(["indoor", "heat"], { serviceC: 300 }), "heat-above-resin"],
    ["two full cures without a scuff", { primer: "zinc", curing: "two-full-cures" }, out, "primer-cured-unscuffed"],
  ] as const)("%s", (_, over, where, kind) => {
    expect(refusals(bracket, where, { ...nothingDone, ...over }).map((r) => r.kind)).toEqual([kind]);
  });
  test("rubber in the oven and a hollow that cannot drain stop any system", () => {
    const p = part({ features: ["rubber-or-seals", "hollow-section", "no-drain-holes"] });
    expect(
      valueOrThrow(advise(p, asNew, out))
        .stops.map((r) => r.kind)
        .sort(),
    ).toEqual(["rubber-in-oven", "undrained-hollow"]);
  });
  test("epoxy indoors, hybrid indoors and 100 µm TGIC-free are fine", () => {
    expect(refusals(bracket, service(["indoor"]), { ...nothingDone, family: "epoxy" })).toEqual([]);
    expect(refusals(bracket, service(["indoor"]), { ...nothingDone, family: "hybrid" })).toEqual([]);
    expect(refusals(bracket, out, { ...nothingDone, family: "polyester-tgic-free", topUm: [60, 100] })).toEqual([]);
  });
});

describe("expected life", () => {
  const gate = (over: object) =>
    expectedLife(bracket, asNew, service(["weather"]), { ...nothingDone, pretreatment: "iron-phosphate", ...over });
  test("unblasted about a year at the edges, blasted three to five, primed longer", () => {
    expect(expectedLife(bracket, asNew, service(["weather"]), nothingDone).rust).toEqual({ from: 0.5, to: 1.5 });
    expect(gate({ preparation: "blast" }).rust).toEqual({ from: 3, to: 5 });
    expect(gate({ preparation: "blast", primer: "zinc" }).rust.from).toBeGreaterThan(5);
  });
  test("says what ends it first, and that it is assumed", () => {
    const primed = expectedLife(bracket, asNew, service(["weather", "sun"]), {
      ...nothingDone,
      preparation: "blast",
      primer: "zinc",
    });
    expect(primed).toMatchObject({ limitedBy: "colour", grade: "assumed" });
    expect(primed.years.to).toBe(primed.colour.to);
    expect(gate({ preparation: "sand" })).toMatchObject({ limitedBy: "rust" });
  });
  test("scale under a sanded film lasts no longer than bare", () => {
    const scaly = expectedLife(bracket, condition({ scale: true }), service(["weather"]), {
      ...nothingDone,
      preparation: "sand",
      pretreatment: "iron-phosphate",
    });
    expect(scaly.rust).toEqual({ from: 0.5, to: 1.5 });
  });
  test("never runs backwards, for any family and service", () => {
    for (const exposure of [["indoor"], ["weather"], ["weather", "sun"], ["coast", "sun"]] as const)
      for (const family of ["polyester", "epoxy", "fluoropolymer", "silicone", "hybrid"] as const) {
        const life = expectedLife(bracket, asNew, service([...exposure]), { ...nothingDone, family });
        expect(life.years.from).toBeLessThanOrEqual(life.years.to);
        expect(life.years.from).toBeGreaterThan(0);
      }
  });
});

describe("risks", () => {
  const knowledge = loadKnowledge();
  test("each leads to a defect and a cause the root-cause engine knows, and that cause can make that defect", () => {
    for (const risk of knownRisks)
      for (const [defect, cause] of risk.leadsTo) {
        expect(knowledge.defects.get(defect)?.causes.has(cause), `${risk.id}: ${defect} ← ${cause}`).toBe(true);
        expect(knowledge.causes.has(cause), cause).toBe(true);
      }
  });
  test("no two have one name, and each is shown by some piece of work", () => {
    expect(new Set(knownRisks.map((r) => r.id)).size).toBe(knownRisks.length);
    expect(knownRisks.length).toBeGreaterThanOrEqual(30);
  });
  const ids = (p: PlannedPart, c: Condition, s: Service) => readRisks(p, c, s, null).map((r) => r.id);
  test.each([
    ["scale-under-film", bracket, condition({ scale: true }), service(["indoor"])],
    ["rust-left", bracket, condition({ rust: "B" }), service(["indoor"])],
    ["pits-show", bracket, condition({ rust: "D" }), service(["weather"])],
    ["casting-gas", part({ substrate: "cast-aluminium", massKg: 4 }), asNew, service(["indoor"])],
    ["zinc-gas", part({ substrate: "galvanised" }), asNew, service(["indoor"])],
    ["thermal-edge", part({ features: ["thermal-cut-edges"] }), asNew, service(["weather"])],
    ["open-lap", part({ lapM: 1 }), asNew, service(["weather"])],
    ["no-drain", part({ features: ["hollow-section", "no-drain-holes"] }), asNew, service(["indoor"])],
    ["creep-from-knocks", bracket, asNew, service(["weather", "knocks"])],
    ["salt-no-primer", bracket, asNew, service(["salt"])],
    ["standard-grade-sun", bracket, asNew, service(["sun"])],
    ["heavy-section", part({ thickestMm: 25, thinnestMm: 20 }), asNew, service(["indoor"])],
    ["mixed-section", part({ thickestMm: 25, thinnestMm: 2 }), asNew, service(["indoor"])],
    ["fits-coated", part({ features: ["threads"] }), asNew, service(["indoor"])],
    ["rubber-in-oven", part({ features: ["rubber-or-seals"] }), asNew, service(["indoor"])],
    ["spatter", bracket, condition({ weldSpatter: true }), service(["indoor"])],
    ["oil-deep", bracket, condition({ oil: true }), service(["indoor"])],
    ["light-metal-conversion", part({ substrate: "aluminium", massKg: 3 }), asNew, service(["weather"])],
    ["clear-overbake", bracket, asNew, service(["indoor"], { finish: "clear" })],
    ["service-heat", bracket, asNew, service(["indoor", "heat"], { serviceC: 200 })],
  ])("%s is read", (id, p, c, s) => {
    expect(ids(p, c, s)).toContain(id);
  });
  test("a plain bright bracket indoors has none that is likely", () => {
    expect(
      readRisks(part({ substrate: "cold-rolled-steel" }), asNew, service(["indoor"]), null).filter(
        (r) => r.likelihood === "likely",
      ),
    ).toEqual([]);
  });
  test("what the system does takes its risk away; what it leaves stays, with what would remove it", () => {
    const s = service(["weather", "salt", "knocks"]);
    const lap = part({ lapM: 2, features: ["sharp-edges"] });
    const { recommended, cheaper } = valueOrThrow(advise(lap, asNew, s));
    for (const id of ["salt-no-primer", "creep-from-knocks", "open-lap", "sharp-edge"])
      expect(recommended.risks.map((r) => r.id)).not.toContain(id);
    expect(cheaper?.changes).toEqual(["no-primer"]);
    expect(cheaper?.risks.map((r) => r.id)).toEqual(expect.arrayContaining(["salt-no-primer", "creep-from-knocks"]));
  });
  test("likely ones first", () => {
    const order = readRisks(
      part({ substrate: "cast-iron", features: ["threads", "deep-recess"], lapM: 1 }),
      condition({ rust: "C" }),
      service(["salt", "standing-water"]),
      null,
    ).map((r) => r.likelihood);
    expect(order).toEqual(
      [...order].sort(
        (a, b) => ["likely", "possible", "seldom"].indexOf(a) - ["likely", "possible", "seldom"].indexOf(b),
      ),
    );
  });
});

describe("a part as described", () => {
  test.each([
    [
      "no length",
      { box: { lengthMm: 0, widthMm: 1, heightMm: 1 } },
      { kind: "bad-size", name: "length, mm", value: 0 },
    ],
    ["a mass that is missing", { massKg: Number.NaN }, { kind: "bad-size", name: "mass, kg" }],
    ["an area under zero", { areaM2: -1 }, { kind: "bad-size", name: "area, m²" }],
    ["a building", { box: { lengthMm: 50_000, widthMm: 1, heightMm: 1 } }, { kind: "bad-size", name: "length, mm" }],
    ["more than its box in steel", { massKg: 400 }, { kind: "mass-beyond-box", massKg: 400 }],
    ["less area than its largest face", { areaM2: 0.1 }, { kind: "area-under-face", areaM2: 0.1, faceM2: 0.12 }],
    ["thinnest over thickest", { thinnestMm: 8 }, { kind: "sections-crossed" }],
    ["a section wider than the box", { thickestMm: 900 }, { kind: "section-beyond-box" }],
    ["a metal nobody has", { substrate: "wood" as never }, { kind: "unknown-substrate", name: "wood" }],
    ["laps under zero", { lapM: -1 }, { kind: "bad-size", name: "laps, m" }],
  ])("%s is refused by name", (_, over, error) => {
    expect(checkPart(part(over))).toMatchObject({ ok: false, error });
  });
  test("188.4 kg of steel just fill this box; aluminium of that mass does not", () => {
    expect(checkPart(part({ massKg: 188.4 })).ok).toBe(true);
    expect(checkPart(part({ massKg: 188.4, substrate: "aluminium" }))).toMatchObject({
      error: { kind: "mass-beyond-box", mostKg: expect.closeTo(64.8, 6) },
    });
  });
  test("area by simple shapes added up", () => {
    expect(valueOrThrow(areaOfShapesM2([{ shape: "plate", count: 2, lengthMm: 1000, widthMm: 500 }]))).toBe(2);
    expect(valueOrThrow(areaOfShapesM2([{ shape: "round-tube", count: 1, outerMm: 100, lengthMm: 1000 }]))).toBeCloseTo(
      Math.PI / 10,
      12,
    );
    expect(
      valueOrThrow(areaOfShapesM2([{ shape: "block", count: 1, lengthMm: 1000, widthMm: 1000, heightMm: 1000 }])),
    ).toBe(6);
    expect(valueOrThrow(areaOfShapesM2([{ shape: "sphere", count: 4, diameterMm: 100 }]))).toBeCloseTo(
      0.04 * Math.PI,
      12,
    );
    expect(
      valueOrThrow(areaOfShapesM2([{ shape: "box-section", count: 3, aMm: 60, bMm: 40, lengthMm: 2000 }])),
    ).toBeCloseTo(1.2, 12);
    expect(areaOfShapesM2([])).toMatchObject({ error: { kind: "no-shapes" } });
    expect(areaOfShapesM2([{ shape: "plate", count: 1, lengthMm: 0, widthMm: 5 }])).toMatchObject({
      error: { kind: "bad-size", name: "plate: lengthMm" },
    });
  });
  test("bad service is named", () => {
    expect(advise(bracket, asNew, service([]))).toMatchObject({ error: { kind: "no-exposure" } });
    expect(advise(bracket, asNew, service(["weather"], { lifeYears: -3 }))).toMatchObject({
      error: { kind: "bad-life", years: -3 },
    });
    expect(advise(bracket, asNew, service(["heat"], { serviceC: 900 }))).toMatchObject({
      error: { kind: "hotter-than-any-resin", serviceC: 900, mostC: 590 },
    });
  });
  test("each thing done adds to the cost", () => {
    const base = relativeCost(nothingDone);
    expect(base).toBe(100);
    for (const over of [
      { preparation: "blast" },
      { breakEdges: true },
      { outgas: true },
      { sealSeams: true },
      { pretreatment: "zirconium" },
      { primer: "zinc" },
      { coats: 2 },
      { family: "fluoropolymer" },
    ] as const)
      expect(relativeCost({ ...nothingDone, ...over }), JSON.stringify(over)).toBeGreaterThan(base);
  });
});

describe("advice that would harm", () => {
  const advised = (p: PlannedPart, c: Condition, s: Service) => valueOrThrow(advise(p, c, s));
  test("no primer under a silicone at 400 °C, neither advised nor offered; asked for it is refused with both figures", () => {
    const hot = service(["weather", "salt"], { serviceC: 400, lifeYears: 10 });
    const a = advised(part(), condition({ scale: true }), hot);
    for (const s of [a.recommended, a.cheaper, a.better]) if (s) expect(s.system.primer).toBe("none");
    expect(a.recommended.system.family).toBe("silicone");
    expect(
      refusals(part(), hot, { ...a.recommended.system, primer: "zinc", primerUm: [50, 80] }).find(
        (r) => r.kind === "heat-above-primer",
      ),
    ).toMatchObject({ serviceC: 400, primer: "zinc", limitC: expect.any(Number) });
  });
  test("blasting takes no oil off: the route degreases before anything abrasive, and the risk of oil stays without a wash", () => {
    const p = part();
    const { system } = advised(p, condition({ oil: true, scale: true }), service(["weather"])).recommended;
    const codes = routeCard({
      part: p,
      condition: condition({ oil: true, scale: true }),
      system,
      cureMetalC: 190,
      cureMinutes: 15,
      blastProfileUm: [40, 75],
      contactS: null,
      masks: 0,
    }).map((s) => s.code);
    expect(codes.indexOf("degrease")).toBeGreaterThanOrEqual(0);
    expect(codes.indexOf("degrease")).toBeLessThan(codes.indexOf("blast"));
    const unwashed = { ...system, preparation: "blast" as const, pretreatment: "none" as const };
    expect(readRisks(p, condition({ oil: true }), service(["weather"]), unwashed).map((r) => r.id)).toContain(
      "oil-deep",
    );
    expect(
      stepsAskedFor({ substrate: p.substrate, features: [], stages: ["blast", "booth", "oven"], recoat: false }),
    ).toContain("degrease");
  });
  test("heat-treated aluminium gets no bake above its cure; put on the route it is held for its maker's word", () => {
    const wheel = part({ substrate: "cast-aluminium", features: ["heat-treated"], massKg: 3 });
    const a = advised(wheel, asNew, service(["weather"]));
    expect(a.recommended.system.outgas).toBe(false);
    expect(a.recommended.risks.map((r) => r.id)).toContain("heat-takes-strength");
    expect(
      refusals(wheel, service(["weather"]), { ...a.recommended.system, outgas: true }).map((r) => r.kind),
    ).toContain("bake-takes-strength");
    expect(
      advised(part({ substrate: "cast-aluminium", massKg: 3 }), asNew, service(["weather"])).recommended.system.outgas,
    ).toBe(true);
    const asked = (features: string[], stages: string[]) =>
      stepsAskedFor({ substrate: "cast-aluminium", features, stages, recoat: false });
    expect(asked(["heat-treated"], [])).not.toContain("prebake");
    expect(asked([], [])).toContain("prebake");
    expect(asked(["heat-treated"], ["prebake"])).toContain("prebake");
  });
  test("an unknown old coating is tested, and held, before it is stripped or blasted", () => {
    const p = part();
    const c = condition({ oldCoating: "unknown" });
    const { system } = advised(p, c, service(["weather"])).recommended;
    const steps = routeCard({
      part: p,
      condition: c,
      system,
      cureMetalC: 190,
      cureMinutes: 15,
      blastProfileUm: [40, 75],
      contactS: null,
      masks: 0,
    });
    expect(steps[0]).toMatchObject({ code: "test-old-coating", hold: true, checks: ["lead-and-chromate"] });
    expect(steps.findIndex((s) => s.code === "strip")).toBeGreaterThan(0);
  });
  test.each(["stainless", "aluminium", "cast-aluminium", "galvanised"] as const)(
    "%s takes no steel grit",
    (substrate) => {
      const p = part({ substrate, massKg: 3 });
      const blasted = { ...nothingDone, preparation: "blast" as const };
      const blast = routeCard({
        part: p,
        condition: asNew,
        system: blasted,
        cureMetalC: 190,
        cureMinutes: 15,
        blastProfileUm: [20, 40],
        contactS: null,
        masks: 0,
      }).find((s) => s.code === "blast");
      expect(blast?.checks).toContain("non-ferrous-media");
      expect(howWarnings("blast", { media: "steel grit" }, substrate)).toContain("ferrous-media");
      expect(howWarnings("blast", { media: "garnet" }, substrate)).toEqual([]);
      expect(howWarnings("blast", { media: "steel grit" }, "hot-rolled-steel")).toEqual([]);
    },
  );
  test("a clear is not acrylic unless a person says so, and then its dust is a risk", () => {
    for (const where of [["indoor"], ["weather"], ["sun", "coast"]] as const) {
      const s = service([...where], { finish: "clear" });
      const a = advised(part({ substrate: "aluminium", massKg: 3 }), asNew, s);
      expect(a.recommended.system.family).not.toBe("acrylic");
      expect(readRisks(part(), asNew, s, { ...a.recommended.system, family: "acrylic" }).map((r) => r.id)).toContain(
        "acrylic-dust",
      );
    }
  });
  test("silica sand is no medium to choose", () => {
    const media = prepHow.blast?.find((f) => f.key === "media");
    expect(media?.kind === "choice" && media.choices.some((c) => /sand/.test(c))).toBe(false);
  });
});
