/** Longest side that the server keeps, px: more would only fill the device. */
const LONGEST = 2400;

/** In a worker: a photo turned as its camera says, no larger than the server keeps it, without its place and camera; null where it is none. */
export async function drawnSmall(file: Blob): Promise<Blob | null> {
  try {
    const bitmap = await createImageBitmap(file);
    const by = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height));
    const [width, height] = [bitmap.width, bitmap.height].map((side) => Math.max(1, Math.round(side * by)));
    const canvas = new OffscreenCanvas(width as number, height as number);
    const context = canvas.getContext("2d");
    if (!context) return null;
    context.imageSmoothingQuality = "high";
    context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
    bitmap.close();
    return await canvas.convertToBlob({ type: "image/jpeg", quality: 0.9 });
  } catch {
    return null;
  }
}
