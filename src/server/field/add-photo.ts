import type { Kysely } from "kysely";
import sharp from "sharp";
import type { Database } from "@/db/schema";
import { findBath } from "../entries/bath-entries";
import { newId } from "../now";
import { findRack } from "../rack/find-rack";
import { sha256 } from "../record/canonical";
import { storeRecord } from "../record/store-record";
import type { Person } from "../sign-in/roles";
import { findStructure } from "./find-structure";

export const MOST_PHOTO_BYTES = 10 * 1024 * 1024;
const MOST_PIXELS = 40_000_000;
/** Longest side kept, pixels: enough to measure creep from, small enough to carry. */
const LONGEST_SIDE = 2400;

type Outcome =
  | { readonly ok: true; readonly recordId: string }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

/** What the photo is of: a structure in the field, a job as it came in, a rack's metal, a test strip of a bath. */
async function subjectOf(db: Kysely<Database>, person: Person, form: FormData, at: Date) {
  const rackNumber = String(form.get("rack") ?? "");
  if (rackNumber !== "") {
    const rack = await findRack(db, person, rackNumber);
    return rack
      ? { ok: true as const, where: { jobId: rack.job_id, rackId: rack.id } }
      : { ok: false as const, failure: { kind: "unknown-rack", number: rackNumber } };
  }
  const bathName = String(form.get("bath") ?? "");
  if (bathName !== "") {
    const bath = await findBath(db, bathName, at);
    return bath
      ? { ok: true as const, where: { bathId: bath.id } }
      : { ok: false as const, failure: { kind: "unknown-bath", name: bathName } };
  }
  const number = String(form.get("job") ?? "");
  if (number !== "") {
    const job = await db
      .selectFrom("job")
      .select("id")
      .where("number", "=", number)
      .$if(person.customerId !== null, (q) => q.where("customer_id", "=", person.customerId as string))
      .executeTakeFirst();
    return job
      ? { ok: true as const, where: { jobId: job.id } }
      : { ok: false as const, failure: { kind: "unknown-job", number } };
  }
  const name = String(form.get("structure") ?? "");
  const structure = await findStructure(db, person, name);
  return structure
    ? { ok: true as const, where: { structureId: structure.id } }
    : { ok: false as const, failure: { kind: "unknown-structure", name } };
}

/** Attaches a photo to what it is of: size and true type checked, decoded and written anew without its metadata (place, camera). */
export async function addPhoto(db: Kysely<Database>, person: Person, form: FormData, at: Date): Promise<Outcome> {
  const file = form.get("photo");
  const id = String(form.get("id") ?? "");
  const caption = String(form.get("caption") ?? "")
    .trim()
    .slice(0, 200);
  const on = await subjectOf(db, person, form, at);
  if (!on.ok) return on;
  if (!(file instanceof File) || file.size === 0) return { ok: false, failure: { kind: "empty-file" } };
  if (file.size > MOST_PHOTO_BYTES)
    return {
      ok: false,
      failure: {
        kind: "too-large",
        megabytes: Math.round(file.size / 1e5) / 10,
        mostMegabytes: MOST_PHOTO_BYTES / 1024 / 1024,
      },
    };
  const original = Buffer.from(await file.arrayBuffer());
  let clean: Buffer;
  try {
    const image = sharp(original, { limitInputPixels: MOST_PIXELS, failOn: "truncated" });
    const { format } = await image.metadata();
    if (format !== "jpeg" && format !== "png" && format !== "webp")
      return { ok: false, failure: { kind: "wrong-kind-of-file", found: format } };
    clean = await image
      .rotate()
      .resize(LONGEST_SIDE, LONGEST_SIDE, { fit: "inside", withoutEnlargement: true })
      .jpeg({ quality: 84 })
      .toBuffer();
  } catch {
    return {
      ok: false,
      failure: {
        kind:
          original.length < 100 || !/^(\xff\xd8|\x89PNG|RIFF)/.test(original.toString("latin1", 0, 8))
            ? "wrong-kind-of-file"
            : "cut-off-upload",
        found: "unreadable",
      },
    };
  }
  if (!/^[0-9a-f-]{36}$/.test(id))
    return { ok: false, failure: { kind: "bad-entry", field: "id", why: "is not an id", value: id.slice(0, 40) } };
  return db.transaction().execute(async (trx) => {
    const key = `photo:${id}`;
    const there = await trx.selectFrom("record").select("id").where("idempotency_key", "=", key).executeTakeFirst();
    if (there) return { ok: true, recordId: there.id };
    const fileId = newId();
    await trx
      .insertInto("file")
      .values({
        id: fileId,
        sha256: sha256(clean),
        media_type: "image/jpeg",
        name: file.name.replace(/[^\w.\- ]/g, "_").slice(0, 120),
        size_bytes: clean.length,
        bytes: clean,
        added_by: person.username,
        added_at: at,
      })
      .execute();
    await storeRecord(
      trx,
      {
        id,
        kind: "photo",
        happenedAt: at,
        by: person.username,
        grade: "measured",
        idempotencyKey: key,
        ...on.where,
        fileId,
        details: { photo: [{ caption: caption || "photo", zone: null }] },
      },
      at,
    );
    return { ok: true, recordId: id };
  });
}
