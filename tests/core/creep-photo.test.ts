import { describe, expect, it, vi } from "vitest";
import {
  blisterSizeOf,
  chalkOnCloth,
  countBlisters,
  creepStrip,
  creepWidths,
  findBlisters,
  findCard,
  flakedShare,
  goneOfMask,
  onPlane,
  type Point,
  scaleByPoints,
  scaleOf,
  similarityOf,
} from "@/core/photo";
import { mean } from "@/core/statistics";
import { creepPhoto, creepSceneOf } from "../support/creep-photo";
import { rustPhoto, rustSceneOf } from "../support/rust-photo";
import { blisterPhoto, clothPhoto, flakedPhoto } from "../support/surface-photo";

// Photos of a megapixel are made up and read: on a machine that does other things as well that takes its time.
vi.setConfig({ testTimeout: 120_000 });

const got = <T>(result: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
};
const inPlane = (shot: ReturnType<typeof creepPhoto>) => {
  const scale = got(findCard(shot.picture));
  const [a, b] = shot.scribe.map((p) => onPlane(scale, shot.seen(p))) as unknown as readonly [Point, Point];
  return { scale, a, b };
};

describe("the scale card", () => {
  it("gives millimetres on its plane wherever the camera stood", () => {
    const shot = creepPhoto(creepSceneOf(3, { tiltDeg: 22, turnDeg: -15, pxPerMm: 7, glare: 0 }));
    const scale = got(findCard(shot.picture));
    for (const [u, v] of [
      [0, 0],
      [100, 90],
      [-10, 70],
    ] as const) {
      // The card's own corner may be any of the four: distances are what is held to.
      const here = onPlane(scale, shot.seen([u, v]));
      const there = onPlane(scale, shot.seen([u + 20, v + 15]));
      expect(Math.hypot(here[0] - there[0], here[1] - there[1])).toBeCloseTo(25, 0);
      expect(Math.abs(Math.hypot(here[0] - there[0], here[1] - there[1]) - 25)).toBeLessThan(0.2);
    }
  });
  it("is refused where it is not, half out of the picture, or too far off, with what is seen", () => {
    const plain = rustPhoto(rustSceneOf(3, { film: [236, 234, 226], rusted: 0.02 }));
    expect(findCard(plain.picture)).toMatchObject({ error: { kind: "no-card" } });
    const half = creepPhoto(creepSceneOf(4, { cardOff: 70, tiltDeg: 0, turnDeg: 0, pxPerMm: 7, glare: 0 }));
    expect(findCard(half.picture)).toMatchObject({ error: { kind: "card-not-whole" } });
    const far = creepPhoto(creepSceneOf(4, { pxPerMm: 2.4, tiltDeg: 0, turnDeg: 0, glare: 0 }));
    expect(findCard(far.picture).ok).toBe(false);
  });
  it("has its corners in any order, and is refused when it stands too much aslant", () => {
    const corners: [Point, Point, Point, Point] = [
      [100, 100],
      [900, 100],
      [900, 600],
      [100, 600],
    ];
    const right = got(scaleOf(corners));
    const swapped = got(scaleOf([corners[0], corners[2], corners[1], corners[3]]));
    expect(right.pxPerMm).toBeCloseTo(10, 6);
    expect(swapped.pxPerMm).toBeCloseTo(10, 6);
    expect(swapped.seen).toEqual(right.seen);
    const upright = got(
      scaleOf([
        [100, 100],
        [600, 100],
        [600, 900],
        [100, 900],
      ]),
    );
    expect(upright.pxPerMm).toBeCloseTo(10, 6);
    expect(
      scaleOf([
        [100, 100],
        [900, 100],
        [700, 300],
        [300, 300],
      ]),
    ).toMatchObject({ error: { kind: "card-aslant" } });
  });
});

describe("a scale by two points", () => {
  it("is their distance, whichever is tapped first; too near, too far and no length are refused", () => {
    expect(got(scaleByPoints([10, 10], [310, 410], 50)).pxPerMm).toBe(10);
    expect(got(scaleByPoints([310, 410], [10, 10], 50)).pxPerMm).toBe(10);
    expect(scaleByPoints([10, 10], [12, 12], 50)).toMatchObject({ error: { kind: "points-too-near" } });
    expect(scaleByPoints([10, 10], [310, 410], 400)).toMatchObject({ error: { kind: "too-far" } });
    expect(scaleByPoints([10, 10], [310, 410], Number.NaN)).toMatchObject({ error: { kind: "bad-input" } });
  });
});

describe("creep by photo", () => {
  it("is within 0.2 mm in nineteen of twenty scenes: shadow, glare, tilt, stains and dark films among them", () => {
    const offs: number[] = [];
    for (let seed = 1; seed <= 20; seed++) {
      const shot = creepPhoto(creepSceneOf(seed));
      const { scale, a, b } = inPlane(shot);
      const widths = creepWidths(got(creepStrip(shot.picture, scale, { kind: "scribe", a, b })));
      offs.push(Math.abs(mean(widths.rustedMm) - shot.rustedMm) / 2);
    }
    expect(offs.filter((o) => o <= 0.2).length / offs.length).toBeGreaterThanOrEqual(0.95);
    expect(Math.max(...offs)).toBeLessThan(1);
  });
  it("keeps what rusts and what has only come loose apart, and the area tells the same as the widths", () => {
    const shot = creepPhoto(
      creepSceneOf(2, { film: [40, 90, 60], creepMm: 1.5, looseMm: 2, shadow: 0.4, glare: 0, stains: 0, tiltDeg: 10 }),
    );
    const { scale, a, b } = inPlane(shot);
    const strip = got(creepStrip(shot.picture, scale, { kind: "scribe", a, b }));
    const widths = creepWidths(strip);
    expect(Math.abs(mean(widths.rustedMm) - shot.rustedMm) / 2).toBeLessThan(0.2);
    expect(Math.abs(mean(widths.looseMm) - shot.goneMm) / 2).toBeLessThan(0.2);
    expect(widths.rustedByAreaMm).toBeCloseTo(mean(widths.rustedMm), 0);
    // What is brushed away is not measured any more.
    expect(mean(creepWidths(strip, new Uint8Array(strip.mask.state.length)).rustedMm)).toBe(0);
    // The ends swapped, it is the same scribe.
    const turned = creepWidths(got(creepStrip(shot.picture, scale, { kind: "scribe", a: b, b: a })));
    expect(mean(turned.rustedMm)).toBeCloseTo(mean(widths.rustedMm), 1);
  });
  it("is the same where the finger was a millimetre and more beside the scribe", () => {
    const shot = creepPhoto(creepSceneOf(11, { film: [96, 98, 100], creepMm: 0.8, looseMm: 0, glare: 0, stains: 0 }));
    const { scale, a, b } = inPlane(shot);
    const off = (p: Point, by: number): Point => [p[0] + by * 0.2, p[1] + by];
    const widths = creepWidths(
      got(creepStrip(shot.picture, scale, { kind: "scribe", a: off(a, 1.4), b: off(b, -1.2) })),
    );
    expect(Math.abs(mean(widths.rustedMm) - shot.rustedMm) / 2).toBeLessThan(0.2);
  });
  it("from an edge is that of its own side: both together are the scribe's", () => {
    const shot = creepPhoto(creepSceneOf(7, { film: [236, 234, 226], creepMm: 3, looseMm: 0, glare: 0, stains: 0 }));
    const { scale, a, b } = inPlane(shot);
    const both = mean(creepWidths(got(creepStrip(shot.picture, scale, { kind: "scribe", a, b }))).rustedMm);
    const across: Point = [-(b[1] - a[1]), b[0] - a[0]];
    const size = Math.hypot(across[0], across[1]);
    const side = (by: number) => {
      const film: Point = [a[0] + (by * across[0]) / size, a[1] + (by * across[1]) / size];
      return mean(creepWidths(got(creepStrip(shot.picture, scale, { kind: "edge", a, b, film }))).rustedMm);
    };
    expect(side(15) + side(-15)).toBeCloseTo(both, 0);
  });
  it("from a chip is one-sided, from its edge", () => {
    // A round chip of 4 mm across that has crept 2 mm all round, on a plate seen square on.
    const [width, height, px] = [800, 800, 10];
    const rgba = new Uint8ClampedArray(width * height * 4);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const r = Math.hypot(x + 0.5 - 400, y + 0.5 - 400) / px;
        const body = r < 4 ? [150 - (x % 5) * 9, 84 - (x % 5) * 5, 46] : [40 + (x % 3), 90 + (y % 3), 60];
        rgba.set([...body, 255], (y * width + x) * 4);
      }
    const scale = got(scaleByPoints([0, 0], [500, 0], 50));
    const strip = got(creepStrip({ width, height, rgba }, scale, { kind: "chip", middle: [40, 40], edge: [42, 40] }));
    const { rustedMm } = creepWidths(strip);
    expect(rustedMm.length).toBeGreaterThanOrEqual(6);
    expect(mean(rustedMm)).toBeCloseTo(2, 0);
    expect(Math.abs(mean(rustedMm) - 2)).toBeLessThan(0.2);
  });
  it("is refused on a film of rust's own colour, and from a line that is hardly one", () => {
    const brown = creepPhoto(creepSceneOf(5, { film: [140, 82, 44], glare: 0 }));
    const { scale, a, b } = inPlane(brown);
    expect(creepStrip(brown.picture, scale, { kind: "scribe", a, b })).toMatchObject({
      error: { kind: "film-like-rust" },
    });
    expect(creepStrip(brown.picture, scale, { kind: "scribe", a, b: [a[0] + 2, a[1]] })).toMatchObject({
      error: { kind: "line-too-short" },
    });
    expect(creepStrip(brown.picture, scale, { kind: "scribe", a: [900, 900], b: [990, 900] })).toMatchObject({
      error: { kind: "creep-out-of-picture" },
    });
  });
});

describe("flaking by photo", () => {
  it("is within one per cent of the area in nineteen of twenty scenes", () => {
    const films = [
      [38, 42, 46],
      [236, 234, 226],
      [30, 70, 130],
      [40, 90, 60],
      [190, 150, 20],
    ] as const;
    const offs = Array.from({ length: 20 }, (_, i) => {
      const shot = flakedPhoto({
        seed: i + 1,
        film: films[i % films.length] as (typeof films)[number],
        metal: [128, 132, 134],
        off: [0.002, 0.01, 0.05, 0.12][i % 4] as number,
        shadow: i % 3 === 0 ? 0.7 : 0,
        noise: 1 + (i % 3),
      });
      return Math.abs(got(flakedShare(shot.picture)).sharePercent - 100 * shot.share);
    });
    expect(offs.filter((o) => o <= 1).length / offs.length).toBeGreaterThanOrEqual(0.95);
  });
  it("of a sound film is none, and of a brushed mask what was left of it", () => {
    const sound = flakedPhoto({ seed: 9, film: [40, 90, 60], metal: [128, 132, 134], off: 0, shadow: 0.6, noise: 2 });
    expect(got(flakedShare(sound.picture)).sharePercent).toBeLessThan(0.05);
    expect(goneOfMask(Uint8Array.from([0, 0, 1, 4, 3, 2]))).toBe(50);
  });
});

describe("blisters by photo", () => {
  it("are counted and sized under light from the side", () => {
    for (const [seed, count, across] of [
      [1, 24, [1.5, 3]],
      [2, 60, [1, 2]],
      [3, 8, [3, 7]],
    ] as const) {
      const shot = blisterPhoto({ seed, film: [120, 122, 124], count, acrossMm: across, noise: 1.5 });
      const found = got(findBlisters(shot.picture, got(findCard(shot.picture))));
      const counted = countBlisters(found.mask, found.mask.state, found.pxPerMm);
      expect(
        Math.abs(counted.count - shot.count) / shot.count,
        `${seed}: ${counted.count} of ${shot.count}`,
      ).toBeLessThanOrEqual(0.2);
      expect(
        Math.abs((counted.medianMm ?? 0) - shot.medianMm) / shot.medianMm,
        `${seed}: ${counted.medianMm} ${shot.medianMm}`,
      ).toBeLessThan(0.25);
    }
  });
  it("are none on a sound film", () => {
    const shot = blisterPhoto({ seed: 5, film: [40, 90, 60], count: 0, acrossMm: [1, 2], noise: 2 });
    const found = got(findBlisters(shot.picture, got(findCard(shot.picture))));
    expect(countBlisters(found.mask, found.mask.state, found.pxPerMm)).toMatchObject({ count: 0, medianMm: null });
  });
  it("have the standard's sizes", () => {
    expect([0.3, 0.5, 0.6, 5, 5.1].map(blisterSizeOf)).toEqual([3, 3, 4, 4, 5]);
  });
});

describe("chalk on a cloth", () => {
  it("is how much lighter it is than where it is clean, whatever the light, where white paper is beside it", () => {
    const scene = { clean: 0.02, rubbed: 0.12, white: 0.855 };
    const at = { rubbed: [0.5, 0.5], clean: [0.15, 0.5], white: [0.9, 0.5] } as const;
    const bright = got(chalkOnCloth(clothPhoto({ ...scene, light: 1 }).picture, at));
    const dim = got(chalkOnCloth(clothPhoto({ ...scene, light: 0.4 }).picture, at));
    expect(bright.deltaL).toBeCloseTo(dim.deltaL, 0);
    // L* of 0.12 is 41.2 and of 0.02 is 15.5 (CIE 1976), held against paper of 94.
    expect(Math.abs(bright.deltaL - 25.7)).toBeLessThan(1);
    expect(bright.byWhite).toBe(true);
  });
  it("is refused on a cloth that is not dark", () => {
    const pale = clothPhoto({ clean: 0.5, rubbed: 0.6, white: 0.85, light: 1 });
    expect(chalkOnCloth(pale.picture, { rubbed: [0.5, 0.5], clean: [0.15, 0.5], white: [0.9, 0.5] })).toMatchObject({
      error: { kind: "cloth-not-dark" },
    });
  });
});

describe("one photo laid on another", () => {
  it("by two places that are in both: turned, made larger and moved", () => {
    const fit = got(
      similarityOf(
        [
          [10, 20],
          [110, 20],
        ],
        [
          [300, 100],
          [300, 300],
        ],
      ),
    );
    const on = ([x, y]: Point): Point => [fit.a * x - fit.b * y + fit.c, fit.b * x + fit.a * y + fit.d];
    expect(on([10, 20])).toEqual([300, 100]);
    expect(on([110, 20])).toEqual([300, 300]);
    expect(on([10, 70])[0]).toBeCloseTo(200, 9);
  });
  it("is refused where the two are one", () => {
    const one: readonly [Point, Point] = [
      [10, 20],
      [12, 21],
    ];
    expect(similarityOf(one, one)).toMatchObject({ error: { kind: "points-too-near" } });
  });
});
