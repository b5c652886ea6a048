import { type CrossCutPhoto, type Picture, type Point, readCrossCut } from "@/core/photo";
import type { Result } from "@/core/result";
import { drawn, openedPhoto } from "../photo/opened-photo";

export type CutQuestion = {
  readonly number: number;
  readonly file: Blob;
  readonly cuts: 6 | 11;
  /** As they were tapped on the picture that was shown, of its width and height, 0–1; null to have them found. */
  readonly corners: readonly [Point, Point, Point, Point] | null;
};
export type CutAnswer = {
  readonly number: number;
  readonly read: Result<CrossCutPhoto>;
  /** The photo itself, small, to tap its corners on; null where it was read, or could not be opened. */
  readonly shown: Picture | null;
};

/** Longest side that is worked on, and that is shown, px. */
const WORKED_ON = 2000;
const SHOWN = 760;

/** Opens a photo turned as its camera says, and reads the cross-cut in it. Failures: those of `readCrossCut` and `openedPhoto`. */
export async function readCutPhoto({ number, file, cuts, corners }: CutQuestion): Promise<CutAnswer> {
  const opened = await openedPhoto(file);
  if (!opened.ok) return { number, read: opened, shown: null };
  const bitmap = opened.value;
  const picture = drawn(bitmap, WORKED_ON);
  const own = corners?.map(([x, y]): Point => [x * picture.width, y * picture.height]) ?? null;
  const read = readCrossCut(picture, cuts, own as CutQuestion["corners"]);
  const shown = read.ok ? null : drawn(bitmap, SHOWN);
  bitmap.close();
  return { number, read, shown };
}
