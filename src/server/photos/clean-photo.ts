import type { Kysely } from "kysely";
import sharp from "sharp";
import type { Database } from "@/db/schema";
import { newId } from "../now";
import { type Outcome, refuse } from "../outcome";
import { sha256 } from "../record/canonical";
import type { Person } from "../sign-in/roles";

export const MOST_PHOTO_BYTES = 10 * 1024 * 1024;
const MOST_PIXELS = 40_000_000;
/** Longest side kept, pixels: enough to measure creep from, small enough to carry. */
const LONGEST_SIDE = 2400;

export type CleanPhoto = { readonly bytes: Buffer; readonly name: string };

/**
 * A photo as it was sent: size and true type checked, decoded and written anew without its metadata (place, camera).
 * Failures: `empty-file`, `too-large`, `wrong-kind-of-file`, `cut-off-upload`.
 */
export async function cleanPhoto(file: FormDataEntryValue | null): Promise<Outcome<CleanPhoto>> {
  if (!(file instanceof File) || file.size === 0) return refuse({ kind: "empty-file" });
  if (file.size > MOST_PHOTO_BYTES)
    return refuse({
      kind: "too-large",
      megabytes: Math.round(file.size / 1e5) / 10,
      mostMegabytes: MOST_PHOTO_BYTES / 1024 / 1024,
    });
  const original = Buffer.from(await file.arrayBuffer());
  try {
    const image = sharp(original, { limitInputPixels: MOST_PIXELS, failOn: "truncated" });
    const { format } = await image.metadata();
    if (format !== "jpeg" && format !== "png" && format !== "webp")
      return refuse({ kind: "wrong-kind-of-file", found: format });
    const bytes = await image
      .rotate()
      .flatten({ background: "#ffffff" })
      .resize(LONGEST_SIDE, LONGEST_SIDE, { fit: "inside", withoutEnlargement: true })
      .jpeg({ quality: 84 })
      .toBuffer();
    return { ok: true, bytes, name: file.name };
  } catch {
    return refuse({
      kind:
        original.length < 100 || !/^(\xff\xd8|\x89PNG|RIFF)/.test(original.toString("latin1", 0, 8))
          ? "wrong-kind-of-file"
          : "cut-off-upload",
      found: "unreadable",
    });
  }
}

/** Keeps a cleaned photo; gives the file's id. */
export async function keepPhoto(trx: Kysely<Database>, person: Person, photo: CleanPhoto, at: Date): Promise<string> {
  const id = newId();
  await trx
    .insertInto("file")
    .values({
      id,
      sha256: sha256(photo.bytes),
      media_type: "image/jpeg",
      name: photo.name.replace(/[^\w.\- ]/g, "_").slice(0, 120),
      size_bytes: photo.bytes.length,
      bytes: photo.bytes,
      added_by: person.username,
      added_at: at,
    })
    .execute();
  return id;
}
