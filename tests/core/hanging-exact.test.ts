import { describe, expect, test } from "vitest";
import {
  type CoatingSystem,
  drainingOf,
  fitAtSite,
  hangingOf,
  howManyHang,
  nothingDone,
  planByAnswer,
} from "@/core/plan";
import { valueOrThrow } from "@/core/result";

const flat = { alongMm: 450, acrossMm: 100, upMm: 300, name: "height up, length along" };
const site = {
  orientation: flat,
  massKg: 5,
  rack: { widthMm: 2000, heightMm: 1000, mostKg: 500 },
  oven: { lengthMm: 6000, widthMm: 1000 },
  gapMm: 50,
};
const hang = (over: Partial<typeof site> = {}) => howManyHang({ ...site, ...over });

describe("how many hang, at the exact limit", () => {
  test("a gap is wanted between pieces, none at the ends", () => {
    // Four of 450 and three gaps of 50 fill 1950 of 2000; three up of 300 and two gaps fill a metre.
    expect(valueOrThrow(hang())).toEqual({
      perRow: 4,
      rows: 3,
      perRack: 12,
      limitedBy: "across",
      perMetre: 6,
      racksDeep: 7,
      racksLong: 3,
      perOven: 252,
    });
    expect(valueOrThrow(hang({ rack: { ...site.rack, widthMm: 1950, heightMm: 1000 } })).perRow).toBe(4);
    expect(valueOrThrow(hang({ rack: { ...site.rack, widthMm: 1949, heightMm: 999 } }))).toMatchObject({
      perRow: 3,
      rows: 2,
    });
    expect(valueOrThrow(hang({ gapMm: 0, rack: { ...site.rack, widthMm: 450, heightMm: 300 } })).perRack).toBe(1);
  });
  test("what the rack carries stops more; just as much as it carries is carried", () => {
    expect(valueOrThrow(hang({ massKg: 50 }))).toMatchObject({ perRack: 10, limitedBy: "mass" });
    expect(valueOrThrow(hang({ massKg: 500 / 12 }))).toMatchObject({ perRack: 12, limitedBy: "across" });
    expect(valueOrThrow(hang({ massKg: 500 })).perRack).toBe(1);
    // Sums of tenths that come out a hair under a whole one.
    expect(valueOrThrow(hang({ massKg: 0.1, rack: { ...site.rack, mostKg: 0.3 } })).perRack).toBe(3);
  });
  test("one row up is held by the room up", () =>
    expect(valueOrThrow(hang({ rack: { ...site.rack, heightMm: 600 } }))).toMatchObject({ rows: 1, limitedBy: "up" }));
  test("an oven shorter than a rack, or shallower than a piece, is still counted as one place", () => {
    expect(valueOrThrow(hang({ oven: { lengthMm: 1900, widthMm: 90 } }))).toMatchObject({ racksDeep: 1, racksLong: 1 });
    expect(valueOrThrow(hang({ oven: { lengthMm: 4000, widthMm: 250 } }))).toMatchObject({
      racksDeep: 2,
      racksLong: 2,
    });
  });
  test.each([
    [{ massKg: 0 }, "massKg"],
    [{ massKg: Number.POSITIVE_INFINITY }, "massKg"],
    [{ rack: { ...site.rack, widthMm: -1 } }, "rackWidthMm"],
    [{ oven: { ...site.oven, widthMm: Number.NaN } }, "ovenWidthMm"],
    [{ gapMm: Number.NaN }, "gap, mm"],
  ])("%o is refused by name", (over, name) => expect(hang(over)).toMatchObject({ error: { kind: "bad-size", name } }));
  test("the site's first rack and first oven are taken, and no rack but to hang from", () => {
    const room = (lengthMm: number) => ({ lengthMm, widthMm: 1000, heightMm: 1000 });
    const places = [
      { code: "cart", name: "Cart", role: "rack", inside: room(2000), mostKg: null },
      { code: "small-cart", name: "Small cart", role: "rack", inside: room(500), mostKg: 1 },
      {
        code: "oven-1",
        name: "Oven 1",
        role: "oven",
        inside: { lengthMm: 6000, widthMm: 2000, heightMm: 2000 },
        mostKg: null,
      },
      {
        code: "oven-2",
        name: "Oven 2",
        role: "oven",
        inside: { lengthMm: 3000, widthMm: 2000, heightMm: 2000 },
        mostKg: null,
      },
    ] as const;
    const part = { box: { lengthMm: 450, widthMm: 100, heightMm: 300 }, massKg: 400 };
    const found = fitAtSite(part, places, { marginMm: 50, gapMm: 50 });
    expect(valueOrThrow(found.fit).tried[0]?.at.map((a) => a.equipment)).toEqual(["Oven 1", "Oven 2"]);
    // No weight is said for the cart: a tonne is taken, two of 400 kg.
    expect(found.loading && valueOrThrow(found.loading)).toMatchObject({ perRack: 2, racksLong: 3, limitedBy: "mass" });
    expect(fitAtSite(part, places.slice(2), { marginMm: 50, gapMm: 50 }).loading).toBeNull();
    expect(fitAtSite({ ...part, massKg: 0 }, places, { marginMm: 50, gapMm: 50 })).toMatchObject({
      fit: { ok: false },
      loading: null,
    });
  });
});

describe("how it hangs, at the exact limit", () => {
  const centre = { xMm: 500, yMm: 100 };
  const at = (...points: [number, number][]) =>
    valueOrThrow(
      hangingOf(
        points.map(([xMm, yMm]) => ({ xMm, yMm })),
        centre,
      ),
    );
  test("five degrees are level, more is a tilt; the heavier side goes down", () => {
    const rise = (deg: number) => 1000 * Math.tan((deg * Math.PI) / 180);
    expect(at([0, 300], [1000, 300 + rise(5)])).toMatchObject({ hangs: "level", tiltDeg: 5, lowEnd: "right" });
    expect(at([0, 300], [1000, 300 + rise(5.1)])).toMatchObject({ hangs: "tilts", tiltDeg: 5.1, lowEnd: "right" });
    const off = 200 * Math.tan((5 * Math.PI) / 180);
    expect(at([500 - off, 300])).toMatchObject({ hangs: "level", tiltDeg: 5, lowEnd: "right", shares: [1] });
    expect(at([500 + 200, 300])).toMatchObject({ hangs: "tilts", tiltDeg: 45, lowEnd: "left" });
    expect(at([500, 300])).toMatchObject({ hangs: "level", tiltDeg: 0, lowEnd: null });
  });
  test("weight over a point hangs from it, past it the part turns; its shares say how much each bears", () => {
    expect(at([500, 300], [900, 300])).toMatchObject({ hangs: "level", shares: [1, 0] });
    expect(at([100, 300], [500, 300])).toMatchObject({ hangs: "level", shares: [0, 1] });
    expect(at([501, 300], [900, 300])).toMatchObject({ hangs: "tips", tiltDeg: 90, lowEnd: "left" });
    expect(at([100, 300], [499, 300])).toMatchObject({ hangs: "tips", tiltDeg: 90, lowEnd: "right" });
    expect(at([300, 300], [700, 300], [500, 300])).toMatchObject({ shares: [0.5, 0, 0.5] });
  });
  test("points level with its centre of mass, or below, hold nothing up", () => {
    expect(at([500, 100])).toMatchObject({ hangs: "tips", tiltDeg: 180, lowEnd: null });
    expect(at([300, 100], [700, 100])).toMatchObject({ hangs: "tips", tiltDeg: 180, lowEnd: null });
    // The highest counts.
    expect(at([300, 100], [700, 101]).hangs).toBe("level");
  });
});

describe("how it drains, at the exact limit", () => {
  const of = (drains: [number, number][], tiltDeg = 0) =>
    valueOrThrow(
      drainingOf({ drains: drains.map(([xMm, yMm]) => ({ xMm, yMm })), lengthMm: 1000, heightMm: 200, tiltDeg }),
    );
  test("ten millimetres left standing run out, more is held; the lowest drain counts", () => {
    expect(of([[500, 10]])).toMatchObject({ drains: "runs-out", standingMm: 10 });
    expect(of([[500, 10.1]])).toMatchObject({ drains: "holds" });
    expect(
      of([
        [500, 80],
        [100, 4],
      ]),
    ).toMatchObject({ drains: "runs-out", standingMm: 4 });
    expect(of([])).toEqual({ drains: "no-drain", standingMm: 200, lowest: "level" });
  });
  test("under half a degree it is level; turned, it runs to the lower corner", () => {
    expect(of([[0, 0]], 0.49).lowest).toBe("level");
    expect(of([[0, 0]], 0.5).lowest).toBe("left");
    expect(of([[0, 0]], -0.5).lowest).toBe("right");
    // Its right end down by 30°: the left corner stands half its length above the right one.
    expect(of([[0, 0]], -30).standingMm).toBeCloseTo(500, 9);
    expect(of([[1000, 0]], -30).standingMm).toBeCloseTo(0, 9);
    for (const deg of [90, -90])
      expect(drainingOf({ drains: [], lengthMm: 1000, heightMm: 200, tiltDeg: deg }).ok).toBe(true);
    expect(drainingOf({ drains: [], lengthMm: 1000, heightMm: 200, tiltDeg: 90.1 })).toMatchObject({
      error: { name: "tilt, degrees", value: 90.1 },
    });
  });
});

describe("what a primer answered leaves of the plan", () => {
  const answered = (system: Partial<CoatingSystem>, taken: boolean) =>
    planByAnswer({ system: { ...nothingDone, ...system }, finish: "standard" }, "zinc-primer", taken)?.system;
  test("taken, it is laid at its usual film", () =>
    expect(answered({}, true)).toMatchObject({ primer: "zinc", primerUm: [50, 80], curing: "primer-gelled" }));
  test("declined, two coats keep their two full cures; one coat has one", () => {
    const zinc = { primer: "zinc", primerUm: [50, 80] } as const;
    expect(answered({ ...zinc, coats: 2, curing: "two-full-cures" }, false)?.curing).toBe("two-full-cures");
    expect(answered({ ...zinc, coats: 1, curing: "two-full-cures" }, false)?.curing).toBe("one-cure");
    expect(answered({ ...zinc, coats: 2, curing: "primer-gelled" }, false)?.curing).toBe("one-cure");
  });
});
