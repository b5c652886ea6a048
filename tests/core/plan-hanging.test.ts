import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  advise,
  asNew,
  costJob,
  drainingOf,
  type Equipment,
  fitAtSite,
  fitPart,
  hangingOf,
  howManyHang,
  intakeLineOf,
  type PlannedPart,
  parseIntakeLine,
  partFeatures,
  routeCard,
  type Service,
  substrates,
} from "@/core/plan";
import { valueOrThrow } from "@/core/result";
import { answer } from "@/ui/plan/fit-answer";
import { rates } from "../support/rates";

const box = (lengthMm: number, widthMm: number, heightMm: number) => ({ lengthMm, widthMm, heightMm });
const indoors: Service = { exposure: ["indoor"], lifeYears: null, finish: "standard", serviceC: null };

describe("tilt and draining", () => {
  const centre = { xMm: 500, yMm: 200 };
  test("the end whose hole sits higher on the part hangs lower", () => {
    const tilted = (left: number, right: number) =>
      valueOrThrow(
        hangingOf(
          [
            { xMm: 100, yMm: left },
            { xMm: 900, yMm: right },
          ],
          centre,
        ),
      );
    expect(tilted(300, 400)).toMatchObject({ hangs: "tilts", lowEnd: "right", tiltDeg: 7.1 });
    expect(tilted(400, 300)).toMatchObject({ lowEnd: "left" });
  });
  test("from one point the heavier side goes down", () => {
    expect(valueOrThrow(hangingOf([{ xMm: 400, yMm: 400 }], centre))).toMatchObject({ lowEnd: "right" });
  });
  const tube = { lengthMm: 2000, heightMm: 60 };
  const drains = (at: [number, number][], tiltDeg = 0) =>
    valueOrThrow(drainingOf({ ...tube, drains: at.map(([xMm, yMm]) => ({ xMm, yMm })), tiltDeg }));
  test("level: a hole in the lower edge lets it out, one half way up leaves half standing", () => {
    expect(drains([[1000, 0]])).toEqual({ drains: "runs-out", standingMm: 0, lowest: "level" });
    expect(drains([[1000, 30]])).toMatchObject({ drains: "holds", standingMm: 30 });
    expect(drains([])).toMatchObject({ drains: "no-drain", standingMm: 60 });
  });
  test("tilted 5° to the left: the hole must be at the left; at the other end 2 m × sin 5° stands", () => {
    expect(drains([[0, 0]], 5)).toMatchObject({ drains: "runs-out", lowest: "left" });
    const wrong = drains([[2000, 0]], 5);
    expect(wrong).toMatchObject({ drains: "holds", lowest: "left" });
    expect(wrong.standingMm).toBeCloseTo(2000 * Math.sin((5 * Math.PI) / 180), 9);
    expect(drains([[2000, 0]], -5)).toMatchObject({ drains: "runs-out", lowest: "right" });
  });
  test("another hole never leaves more standing, and none stands deeper than the part", () => {
    const place = fc.tuple(fc.double({ min: 0, max: 2000, noNaN: true }), fc.double({ min: 0, max: 60, noNaN: true }));
    const tilts = fc.double({ min: -60, max: 60, noNaN: true });
    fc.assert(
      fc.property(fc.array(place, { maxLength: 4 }), place, tilts, (holes, more, tilt) => {
        const few = drains(holes, tilt);
        const many = drains([...holes, more], tilt);
        expect(many.standingMm).toBeLessThanOrEqual(few.standingMm + 1e-9);
        expect(many.standingMm).toBeGreaterThanOrEqual(0);
        expect(few.standingMm).toBeLessThanOrEqual(Math.hypot(2000, 60) + 1e-9);
      }),
    );
  });
  test("sizes and tilts that cannot be are refused", () => {
    for (const bad of [{ lengthMm: 0 }, { heightMm: Number.NaN }, { tiltDeg: 91 }, { tiltDeg: Number.NaN }])
      expect(drainingOf({ ...tube, drains: [], tiltDeg: 0, ...bad })).toMatchObject({ error: { kind: "bad-size" } });
  });
});

describe("a part against a site", () => {
  const places: Equipment[] = [
    { code: "O", name: "Oven", role: "oven", inside: box(3000, 1500, 1800), mostKg: null },
    { code: "H", name: "Hook", role: "hook", inside: null, mostKg: 60 },
    { code: "R", name: "Rack", role: "rack", inside: box(2000, 500, 1500), mostKg: 300 },
  ];
  const rooms = { marginMm: 50, gapMm: 100 };
  test("is the same as its fit and its loading worked out apart", () => {
    const part = { box: box(400, 100, 300), massKg: 8 };
    const { fit, loading } = fitAtSite(part, places, rooms);
    const whole = valueOrThrow(fit);
    expect(whole).toEqual(valueOrThrow(fitPart(part, places.slice(0, 2), 50)));
    expect(whole.best).not.toBeNull();
    if (!whole.best) return;
    expect(loading).toEqual(
      howManyHang({
        orientation: whole.best.orientation,
        massKg: 8,
        rack: { widthMm: 2000, heightMm: 1500, mostKg: 300 },
        oven: { lengthMm: 3000, widthMm: 1500 },
        gapMm: 100,
      }),
    );
  });
  test("what fits no way has no loading; a site without a rack has none either", () => {
    expect(fitAtSite({ box: box(4000, 100, 300), massKg: 8 }, places, rooms).loading).toBeNull();
    expect(fitAtSite({ box: box(400, 100, 300), massKg: 8 }, places.slice(0, 2), rooms).loading).toBeNull();
  });
  test("in the worker's answer each part is in its place, with what keeps it out", () => {
    const found = answer({
      number: 4,
      parts: [
        { box: box(400, 100, 300), massKg: 8 },
        { box: box(4000, 100, 300), massKg: 8 },
        { box: box(400, 100, 300), massKg: 75 },
        { box: box(0, 100, 300), massKg: 8 },
      ],
      places,
      rooms,
      units: "metric",
    });
    expect(found.number).toBe(4);
    expect(found.found.map((f) => f.fits)).toEqual([true, false, false, null]);
    expect(found.found[1]).toMatchObject({ keptOutBy: [{ place: "Oven", by: "1100 mm too long" }] });
    expect(found.found[2]).toMatchObject({ keptOutBy: [{ place: "Hook", by: "15 kg too heavy" }] });
  });
});

describe("an open frame", () => {
  test("may have less area than its box's face; anything else may not", () => {
    const gate = "Gate,steel,2000x60x1000,3,22,1.1,2";
    expect(parseIntakeLine(gate)).toMatchObject({ error: { kind: "area-under-face" } });
    expect(valueOrThrow(parseIntakeLine(`${gate},frame`))).toMatchObject({ areaM2: 1.1, features: ["open-frame"] });
  });
});

describe("a known part's line", () => {
  test("is read back as the same part, whatever it has", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...substrates),
        fc.uniqueArray(fc.constantFrom(...partFeatures), { maxLength: 6 }),
        fc.tuple(
          fc.integer({ min: 50, max: 3000 }),
          fc.integer({ min: 50, max: 900 }),
          fc.integer({ min: 50, max: 900 }),
        ),
        fc.integer({ min: 0, max: 40 }),
        (substrate, features, [lengthMm, widthMm, heightMm], laps) => {
          const lapM = laps / 10;
          const part: PlannedPart = {
            substrate,
            features: [
              ...features.filter((f) => f !== "open-lap-seam"),
              ...(lapM > 0 ? (["open-lap-seam"] as const) : []),
            ],
            box: { lengthMm, widthMm, heightMm },
            thinnestMm: 2,
            thickestMm: 6,
            massKg: 0.2,
            areaM2: 9,
            lapM,
          };
          const read = valueOrThrow(parseIntakeLine(intakeLineOf({ ...part, name: "Part 7" }, 12)));
          expect(read).toMatchObject({ ...part, name: "Part 7", pieces: 12, assumed: [], features: expect.anything() });
          expect([...read.features].sort()).toEqual([...part.features].sort());
        },
      ),
    );
  });
});

describe("hand finishing", () => {
  const plain = {
    part: { ...(valueOrThrow(parseIntakeLine("Rail,steel,900x100x100,4,6,0.6,2")) as PlannedPart) },
    condition: asNew,
    cureMetalC: 190,
    cureMinutes: 15,
    blastProfileUm: [35, 60] as const,
    contactS: null,
    masks: 0,
  };
  test("each step is on the card against the agreed sample, the lacquer's bond is a hold point, release is last", () => {
    const system = valueOrThrow(advise(plain.part, asNew, indoors)).recommended.system;
    const route = routeCard({ ...plain, system, handSteps: 3 });
    expect(route.filter((s) => s.code === "hand-finish")).toHaveLength(3);
    expect(route.find((s) => s.code === "lacquer")).toMatchObject({ hold: true, checks: ["layer-bond"] });
    expect(route.slice(-2).map((s) => s.code)).toEqual(["lacquer", "release"]);
    const without = routeCard({ ...plain, system }).map((s) => s.code);
    expect(route.map((s) => s.code).filter((c) => c !== "hand-finish" && c !== "lacquer")).toEqual(without);
  });
  test("costs its hours: four minutes of hand work on ten pieces, two steps and the lacquer, are two hours", () => {
    const system = valueOrThrow(advise(plain.part, asNew, indoors)).recommended.system;
    const costed = (handSteps: number) =>
      valueOrThrow(
        costJob({
          part: plain.part,
          pieces: 10,
          system,
          top: { specificGravity: 1.6, perKg: 7, schedule: [{ metalC: 190, minutes: 15 }] },
          primer: { specificGravity: 2.2, perKg: 9, schedule: [{ metalC: 190, minutes: 15 }] },
          rates: { ...rates, handFinishMinPerStep: 4 },
          perOven: 10,
          edgeM: 0,
          handSteps,
        }),
      );
    const by = costed(2).lines.find((l) => l.code === "hand-finish");
    expect(by).toMatchObject({ quantity: 30, hours: 2 });
    expect(costed(2).cost - costed(0).cost).toBeCloseTo(2 * rates.labourPerHour, 9);
    expect(costed(0).lines.some((l) => l.code === "hand-finish")).toBe(false);
  });
});
