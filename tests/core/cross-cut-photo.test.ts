import { describe, expect, test } from "vitest";
import { crossCutGrade } from "@/core/bench";
import { findLattice, homographyOf, planesOf, readCrossCut, seenAt, sharesOf } from "@/core/photo";
import { type LatticeScene, latticePhoto, sceneOf } from "../support/lattice-photo";

const calm = (seed: number, over: Partial<LatticeScene> = {}) =>
  sceneOf(seed, { width: 620, height: 560, glare: 0, size: 0.55, noise: 2, ...over });
const kindOf = (read: ReturnType<typeof readCrossCut>) =>
  read.ok ? `read ${read.value.removedPercent}` : read.error.kind;

describe("a cross-cut read from a photo", () => {
  // Dark and light films, any turn, aslant, blurred, with light that falls off: each by its truth.
  test.each([
    [1, 0],
    [2, 0.02],
    [3, 0.04],
    [4, 0.09],
    [5, 0.13],
    [6, 0.2],
    [7, 0.3],
    [8, 0.45],
    [9, 0.6],
    [10, 0.1],
  ])("scene %d, of which %d came off, within 1 %% and of the same grade", { timeout: 30_000 }, (seed, lifted) => {
    const photo = latticePhoto(calm(seed, { lifted }));
    const read = readCrossCut(photo.picture, 6);
    if (!read.ok) throw new Error(JSON.stringify(read.error));
    expect(Math.abs(read.value.removedPercent - 100 * photo.share)).toBeLessThan(1);
    const truth = crossCutGrade(100 * photo.share);
    expect(truth.ok && truth.value.iso).toBe(read.value.grade.iso);
    expect(read.value.squares).toHaveLength(25);
  });
  test("by corners that somebody tapped, not quite where they are", { timeout: 30_000 }, () => {
    const photo = latticePhoto(calm(11, { lifted: 0.2 }));
    const tapped = photo.corners.map(([x, y], i) => [x + (i % 2 ? 4 : -4), y + 3] as const);
    const read = readCrossCut(photo.picture, 6, tapped as never);
    if (!read.ok) throw new Error(JSON.stringify(read.error));
    expect(Math.abs(read.value.removedPercent - 100 * photo.share)).toBeLessThan(1);
  });
  test("without a lattice it cannot tell: film alone, cuts one way only", { timeout: 30_000 }, () => {
    expect(kindOf(readCrossCut(latticePhoto(calm(12, { cuts: 0 })).picture, 6))).toBe("no-lattice");
    const stripes = latticePhoto(calm(13, { cuts: 0 })).picture;
    for (let y = 0; y < stripes.height; y++)
      for (let x = 0; x < stripes.width; x++)
        if (x % 70 < 5) stripes.rgba.fill(190, (y * stripes.width + x) * 4, (y * stripes.width + x) * 4 + 3);
    expect(kindOf(readCrossCut(stripes, 6))).toBe("no-lattice");
  });
  test("a lattice that is half out of the picture is none", { timeout: 30_000 }, () => {
    const cut = latticePhoto(calm(14, { aside: [0.42, 0], lifted: 0 }));
    expect(["no-lattice", "no-film-to-go-by", "lattice-cut-off"]).toContain(kindOf(readCrossCut(cut.picture, 6)));
  });
  test.each([21, 22, 23])(
    "a lamp on the gloss, scene %d, is told of, not taken for metal",
    { timeout: 30_000 },
    (seed) => {
      const photo = latticePhoto(calm(seed, { glare: 0.8, lifted: 0.04, film: [38, 42, 46], metal: [140, 138, 134] }));
      const read = readCrossCut(photo.picture, 6);
      const told = read.ok ? Math.abs(read.value.removedPercent - 100 * photo.share) < 1 : read.error.kind;
      expect([true, "glare", "no-lattice"]).toContain(told);
    },
  );
  test("film and metal that look alike are not told apart", { timeout: 30_000 }, () => {
    const photo = latticePhoto(calm(25, { film: [150, 150, 150], metal: [156, 156, 156], noise: 1, lifted: 0.2 }));
    const read = readCrossCut(photo.picture, 6);
    expect(read.ok).toBe(false);
  });
  test("two lattices in one photo are told of", { timeout: 30_000 }, () => {
    const one = latticePhoto(
      calm(26, { width: 520, height: 520, turnedDeg: 4, aslant: 0.02, size: 0.6, lifted: 0 }),
    ).picture;
    const both = { width: 1040, height: 520, rgba: new Uint8ClampedArray(1040 * 520 * 4) };
    for (let y = 0; y < 520; y++)
      for (const left of [0, 520])
        both.rgba.set(one.rgba.subarray(y * 520 * 4, (y + 1) * 520 * 4), (y * 1040 + left) * 4);
    expect(kindOf(readCrossCut(both, 6))).toBe("two-lattices");
  });
  test("a picture that is none is refused", () => {
    const rgba = new Uint8ClampedArray(64 * 64 * 4);
    expect(kindOf(readCrossCut({ width: 64, height: 63, rgba }, 6))).toBe("photo-too-small");
    expect(kindOf(readCrossCut({ width: 64, height: 65, rgba }, 6))).toBe("bad-photo");
    expect(kindOf(readCrossCut({ width: 10_000, height: 10_000, rgba }, 6))).toBe("photo-too-large");
  });
});

describe("a plane seen from aslant", () => {
  const pairs = [
    [
      [0, 0],
      [10, 20],
    ],
    [
      [5, 0],
      [110, 26],
    ],
    [
      [5, 5],
      [104, 118],
    ],
    [
      [0, 5],
      [14, 112],
    ],
  ] as const;
  test("four corners are seen where they were", () => {
    const h = homographyOf(pairs);
    if (!h.ok) throw new Error(h.error.kind);
    for (const [on, seen] of pairs) {
      const [x, y] = seenAt(h.value, on);
      expect(x).toBeCloseTo(seen[0], 6);
      expect(y).toBeCloseTo(seen[1], 6);
    }
  });
  test("too few, or on one line, are refused", () => {
    expect(homographyOf(pairs.slice(0, 3))).toMatchObject({ error: { kind: "too-few-corners" } });
    expect(
      homographyOf(
        [0, 1, 2, 3].map(
          (i) =>
            [
              [i, i],
              [i * 9, i * 9],
            ] as const,
        ),
      ),
    ).toMatchObject({
      error: { kind: "flat-points" },
    });
  });
});

test("shares are of the squares between their cuts, what is not told left out", () => {
  const width = Math.round(6.5 * 48);
  const state = new Uint8Array(width * width);
  // The upper left square bare in its left half, the one beside it not told at all.
  for (let y = 36; y < 84; y++) for (let x = 36; x < 132; x++) state[y * width + x] = x < 60 ? 1 : x < 84 ? 0 : 2;
  const { squares, unknown, leastTold } = sharesOf(state, width, 5, 0.03);
  expect(leastTold).toBe(0);
  expect(squares[0]).toBeCloseTo(0.5, 1);
  expect(squares[1]).toBe(0);
  expect(squares.slice(2).every((s) => s === 0)).toBe(true);
  expect(unknown).toBeCloseTo(1 / 25, 2);
});

test("a lattice of eleven cuts is found as well", { timeout: 30_000 }, () => {
  const photo = latticePhoto(
    calm(31, { cuts: 11, width: 900, height: 800, size: 0.6, kerf: 0.1, lifted: 0, turnedDeg: 8 }),
  );
  const { planes } = planesOf(photo.picture, 1000);
  expect(findLattice(planes, 11)).toMatchObject({ ok: true });
});
