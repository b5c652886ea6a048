import { err, ok, type Result } from "../result";
import { middleOf } from "./film-gone";
import type { Point } from "./homography";
import { checkPicture, type Picture } from "./image";

/** About a point that is tapped, share of the picture's longer side. */
const ABOUT = 0.02;
/** L* of the white paper that the light is told by. */
const WHITE_L = 94;

export type ChalkOnCloth = {
  /** How much lighter the cloth is where it rubbed, ΔL* (CIE 1976). */
  readonly deltaL: number;
  readonly rubbedL: number;
  readonly cleanL: number;
  /** Whether the light was told by white paper in the picture, or taken as it is. */
  readonly byWhite: boolean;
};

/** Luminance of an sRGB value, 0–1 (IEC 61966-2-1). */
const linear = (value: number): number => {
  const c = value / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
};
/** Lightness of a luminance, of white's (CIE 1976). */
const lightness = (y: number): number => (y > 216 / 24389 ? 116 * Math.cbrt(y) - 16 : (24389 / 27) * y);

/**
 * How much white a dark cloth took off a surface: by the lightness where it rubbed and where it is clean, held against white
 * paper where that is tapped too. Failures: those of `checkPicture`, `cloth-not-dark` (its lightness), `glare`. O(pixels tapped).
 */
export function chalkOnCloth(
  picture: Picture,
  at: { readonly rubbed: Point; readonly clean: Point; readonly white: Point | null },
): Result<ChalkOnCloth> {
  const checked = checkPicture(picture);
  if (!checked.ok) return checked;
  const [rubbed, clean] = [luminanceAt(picture, at.rubbed), luminanceAt(picture, at.clean)];
  const white = at.white ? luminanceAt(picture, at.white) : null;
  if (white !== null && white > 0.98) return err({ kind: "glare", sharePercent: 100 });
  const whiteY = ((WHITE_L + 16) / 116) ** 3;
  const by = white === null ? 1 : whiteY / Math.max(1e-6, white);
  const [rubbedL, cleanL] = [lightness(rubbed * by), lightness(clean * by)];
  if (cleanL > 55) return err({ kind: "cloth-not-dark", lightness: cleanL });
  return ok({ deltaL: rubbedL - cleanL, rubbedL, cleanL, byWhite: white !== null });
}

/** The middle luminance about a place, of the picture's width and height, 0–1. */
function luminanceAt({ width, height, rgba }: Picture, [px, py]: Point): number {
  const [cx, cy] = [Math.round(px * width), Math.round(py * height)];
  const reach = Math.max(2, Math.round(ABOUT * Math.max(width, height)));
  const values: number[] = [];
  for (let y = Math.max(0, cy - reach); y <= Math.min(height - 1, cy + reach); y++)
    for (let x = Math.max(0, cx - reach); x <= Math.min(width - 1, cx + reach); x++) {
      const i = (y * width + x) * 4;
      values.push(
        0.2126 * linear(rgba[i] as number) +
          0.7152 * linear(rgba[i + 1] as number) +
          0.0722 * linear(rgba[i + 2] as number),
      );
    }
  return middleOf(values);
}
