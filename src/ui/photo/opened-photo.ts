import { imageSize } from "image-size";
import { MOST_PIXELS, type Picture } from "@/core/photo";
import { err, ok, type Result } from "@/core/result";

/** So much of a file says how large its picture is. */
const HEAD_BYTES = 512 * 1024;

/** A photo opened in a worker, turned as its camera says. Failures: `photo-too-large`, `wrong-kind-of-file`. */
export async function openedPhoto(file: Blob): Promise<Result<ImageBitmap>> {
  try {
    const { width, height } = imageSize(new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer()));
    if (width * height > MOST_PIXELS) return err({ kind: "photo-too-large", megapixels: (width * height) / 1e6 });
  } catch {
    return err({ kind: "wrong-kind-of-file", found: file.type || "unknown" });
  }
  try {
    return ok(await createImageBitmap(file));
  } catch {
    return err({ kind: "wrong-kind-of-file", found: file.type || "damaged" });
  }
}

/** The picture of a bitmap, no side longer than `most` px. */
export function drawn(bitmap: ImageBitmap, most: number): Picture {
  const by = Math.min(1, most / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [Math.max(1, Math.round(bitmap.width * by)), Math.max(1, Math.round(bitmap.height * by))];
  const context = new OffscreenCanvas(width, height).getContext("2d", { willReadFrequently: true });
  if (!context) throw new Error("no canvas to draw a photo on");
  context.imageSmoothingQuality = "high";
  context.drawImage(bitmap, 0, 0, width, height);
  return { width, height, rgba: context.getImageData(0, 0, width, height).data };
}
