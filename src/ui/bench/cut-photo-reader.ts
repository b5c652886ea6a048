import { imageSize } from "image-size";
import { type CrossCutPhoto, MOST_PIXELS, type Picture, type Point, readCrossCut } from "@/core/photo";
import { err, type Failure, type Result } from "@/core/result";

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
/** So much of a file says how large its picture is. */
const HEAD_BYTES = 512 * 1024;

/** Opens a photo turned as its camera says, and reads the cross-cut in it. Failures: those of `readCrossCut`, `wrong-kind-of-file`. */
export async function readCutPhoto({ number, file, cuts, corners }: CutQuestion): Promise<CutAnswer> {
  const no = (failure: Failure): CutAnswer => ({ number, read: err(failure), shown: null });
  try {
    const { width, height } = imageSize(new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer()));
    if (width * height > MOST_PIXELS) return no({ kind: "photo-too-large", megapixels: (width * height) / 1e6 });
  } catch {
    return no({ kind: "wrong-kind-of-file", found: file.type || "unknown" });
  }
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file);
  } catch {
    return no({ kind: "wrong-kind-of-file", found: file.type || "damaged" });
  }
  const picture = drawn(bitmap, WORKED_ON);
  const own = corners?.map(([x, y]): Point => [x * picture.width, y * picture.height]) ?? null;
  const read = readCrossCut(picture, cuts, own as CutQuestion["corners"]);
  const shown = read.ok ? null : drawn(bitmap, SHOWN);
  bitmap.close();
  return { number, read, shown };
}

function drawn(bitmap: ImageBitmap, most: number): Picture {
  const by = Math.min(1, most / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [Math.max(1, Math.round(bitmap.width * by)), Math.max(1, Math.round(bitmap.height * by))];
  const context = new OffscreenCanvas(width, height).getContext("2d", { willReadFrequently: true });
  if (!context) throw new Error("no canvas to draw a photo on");
  context.imageSmoothingQuality = "high";
  context.drawImage(bitmap, 0, 0, width, height);
  return { width, height, rgba: context.getImageData(0, 0, width, height).data };
}
