import { type Kysely, sql } from "kysely";
import { cutTo, wellFormed } from "@/core/text";
import { forPerson } from "@/db/queries/for-person";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { findBath } from "../baths/find-bath";
import { type EntryOutcome, refuse } from "../outcome";
import { cleanPhoto, keepPhoto } from "../photos/clean-photo";
import { findRack } from "../rack/find-rack";
import { storeOne } from "../record/store-record";
import type { Person } from "../sign-in/roles";
import { CLOCK_SLACK_MS, type Clock, write } from "../write";
import { findStructure } from "./find-structure";

/** Who may: metal and strips are photographed on the line; a field left empty names nothing. */
export const photoAbility = (form: FormData): "log-line" | "inspect" =>
  ["rack", "bath"].some((of) => String(form.get(of) ?? "").trim() !== "") ? "log-line" : "inspect";

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
      .where(forPerson(person, "customer_id"))
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

/** The record of the rack that it shows; null where none is named, undefined where that is none of this rack's. */
async function shownBy(
  db: Kysely<Database>,
  form: FormData,
  where: { readonly rackId?: string },
): Promise<string | null | undefined> {
  const named = String(form.get("shows") ?? "");
  if (named === "") return null;
  if (!where.rackId || !/^[0-9a-f-]{36}$/.test(named)) return undefined;
  const { rows } = await sql<{ id: string }>`
    select r.id from record r where r.id = ${named} and (r.rack_id = ${where.rackId}
      or exists (select 1 from stands_for s where s.record_id = r.id and s.rack_id = ${where.rackId}))`.execute(db);
  return rows[0]?.id;
}

/** When it was taken, where whoever sends it says so: it may have waited for a network. Now where nothing is said; null where that cannot be. */
function takenAt(form: FormData, at: Date): Date | null {
  const said = form.get("takenAt");
  if (said === null) return at;
  const taken = new Date(String(said));
  return taken.getTime() <= at.getTime() + CLOCK_SLACK_MS && taken.getUTCFullYear() >= 1990 ? taken : null;
}

/** Attaches a photo to what it is of: size and true type checked, decoded and written anew without its metadata (place, camera). */
export async function addPhoto(
  db: Kysely<Database>,
  person: Person,
  form: FormData,
  clock: Clock,
): Promise<EntryOutcome> {
  const file = form.get("photo");
  const id = String(form.get("id") ?? "");
  const caption = cutTo(wellFormed(String(form.get("caption") ?? "").trim()), 200);
  const photo = await cleanPhoto(file);
  if (!photo.ok) return photo;
  if (!/^[0-9a-f-]{36}$/.test(id))
    return refuse({ kind: "bad-entry", field: "id", why: "is not an id", value: id.slice(0, 40) });
  const key = `photo:${id}`;
  return write<EntryOutcome>(db, [lock.key(key)], clock, async (trx, at) => {
    const on = await subjectOf(trx, person, form, at);
    if (!on.ok) return on;
    const there = await trx.selectFrom("record").select("id").where("idempotency_key", "=", key).executeTakeFirst();
    if (there) return { ok: true, recordId: there.id, already: true };
    const happenedAt = takenAt(form, at);
    if (!happenedAt) return refuse({ kind: "in-the-future", happenedAt: String(form.get("takenAt")).slice(0, 40) });
    const shows = await shownBy(trx, form, on.where);
    if (shows === undefined) return refuse({ kind: "not-of-this-rack", number: String(form.get("rack") ?? "") });
    const fileId = await keepPhoto(trx, person, photo, at);
    return storeOne(
      trx,
      {
        id,
        kind: "photo",
        happenedAt,
        by: person.username,
        grade: "measured",
        idempotencyKey: key,
        ...on.where,
        fileId,
        details: {
          photo: [
            {
              caption: caption || "photo",
              zone: cutTo(wellFormed(String(form.get("zone") ?? "").trim()), 80) || null,
              of_record: shows,
            },
          ],
        },
      },
      at,
    );
  });
}
