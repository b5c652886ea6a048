import { describe, expect, it } from "vitest";
import { rustShare, shareOfMask } from "@/core/photo";
import { type RustScene, rustPhoto, rustSceneOf } from "../support/rust-photo";

const read = (seed: number, over: Partial<RustScene> = {}) => {
  const photo = rustPhoto(rustSceneOf(seed, over));
  return { photo, told: rustShare(photo.picture) };
};

describe("the rusted share of a photo", () => {
  it("is within one percent of the area in nineteen of twenty, in shadow, glare, stains and on any film", () => {
    const offs: number[] = [];
    for (let seed = 301; seed < 341; seed++) {
      const { photo, told } = read(seed);
      if (told.ok) offs.push(Math.abs(told.value.sharePercent - 100 * photo.share));
      else expect(told.error.kind).toBe("glare");
    }
    expect(offs.length).toBeGreaterThanOrEqual(38);
    expect(offs.filter((d) => d <= 1).length / offs.length).toBeGreaterThanOrEqual(0.95);
  }, 60_000);
  it("is none where there is none, however it is lit", () => {
    for (const film of [
      [38, 42, 46],
      [236, 234, 226],
      [30, 70, 130],
    ] as const) {
      const { told } = read(5, { film, rusted: 0, shadow: 0.9, glare: 0, stains: 0 });
      expect(told.ok && told.value.sharePercent).toBe(0);
    }
  });
  it("does not take water that ran off rust for rust", () => {
    const { photo, told } = read(9, { film: [236, 234, 226], rusted: 0.02, shadow: 0, glare: 0, stains: 4, noise: 2 });
    if (!told.ok) throw new Error(told.error.kind);
    expect(Math.abs(told.value.sharePercent - 100 * photo.share)).toBeLessThan(1);
  });
  it("is of the frame alone where one is drawn", () => {
    const { width, height, rgba } = rustPhoto(
      rustSceneOf(4, { rusted: 0, film: [120, 122, 124], glare: 0, shadow: 0, stains: 0 }),
    ).picture;
    // A square of rust, a quarter of the right half.
    for (let y = 0; y < height / 2; y++)
      for (let x = width / 2; x < width * 0.75; x++) {
        const rough = 1 + 0.2 * Math.sin(x * 1.7) * Math.cos(y * 2.3);
        for (const [c, v] of [150, 84, 44].entries()) rgba[(y * width + x) * 4 + c] = v * rough;
      }
    const share = (frame: Parameters<typeof rustShare>[1]) => {
      const told = rustShare({ width, height, rgba }, frame);
      return told.ok ? told.value.sharePercent : Number.NaN;
    };
    expect(share(null)).toBeCloseTo(12.5, 0);
    expect(
      share([
        [0.5, 0],
        [1, 0],
        [1, 1],
        [0.5, 1],
      ]),
    ).toBeCloseTo(25, 0);
    expect(
      share([
        [0, 0],
        [0.5, 0],
        [0.5, 1],
        [0, 1],
      ]),
    ).toBeLessThan(0.3);
    expect(
      rustShare({ width, height, rgba }, [
        [0.1, 0.1],
        [0.12, 0.1],
        [0.12, 0.12],
      ]),
    ).toMatchObject({
      error: { kind: "frame-too-small" },
    });
  });
  it("is not told on a film of rust's own colour, nor of a picture that is none", () => {
    const { told } = read(6, { film: [150, 85, 45], rusted: 0.05, shadow: 0, glare: 0, stains: 0, noise: 2 });
    expect(told).toMatchObject({ ok: false, error: { kind: "film-like-rust" } });
    expect(rustShare({ width: 20, height: 20, rgba: new Uint8ClampedArray(1600) })).toMatchObject({
      error: { kind: "photo-too-small" },
    });
    expect(rustShare({ width: 100, height: 100, rgba: new Uint8ClampedArray(16) })).toMatchObject({
      error: { kind: "bad-photo" },
    });
  });
  it("mended by hand is the share of what is told", () => {
    expect(shareOfMask(Uint8Array.from([0, 0, 0, 1, 2, 3, 3]))).toBe(25);
    expect(shareOfMask(Uint8Array.from([2, 3]))).toBe(0);
  });
});
