import type { Kysely } from "kysely";
import sharp from "sharp";
import type { Database } from "@/db/schema";

/** Longest side on paper, px: as much as a printer shows of it. */
const PRINTED_SIDE = 1100;

/** Stored photos made small enough to print, in the order they are asked for; those that are not there are left out. One query. */
export async function printedPhotos(
  db: Kysely<Database>,
  asked: readonly { readonly fileId: string; readonly caption: string }[],
): Promise<{ readonly bytes: Buffer; readonly caption: string }[]> {
  if (asked.length === 0) return [];
  const files = await db
    .selectFrom("file")
    .select(["id", "bytes"])
    .where(
      "id",
      "in",
      asked.map((a) => a.fileId),
    )
    .execute();
  return Promise.all(
    asked.flatMap(({ fileId, caption }) => {
      const file = files.find((f) => f.id === fileId);
      if (!file) return [];
      return [
        sharp(file.bytes)
          .resize(PRINTED_SIDE, PRINTED_SIDE, { fit: "inside", withoutEnlargement: true })
          .jpeg({ quality: 80 })
          .toBuffer()
          .then((bytes) => ({ bytes, caption })),
      ];
    }),
  );
}
