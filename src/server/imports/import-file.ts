import { type Kysely, sql } from "kysely";
import type { BathFile } from "@/core/instrument-files";
import type { Failure } from "@/core/result";
import type { Database } from "@/db/schema";
import { newId } from "../now";
import { findRack } from "../rack/find-rack";
import { sha256 } from "../record/canonical";
import { readDetails, tablesOfKind } from "../record/read-details";
import { type NewRecord, storeRecord } from "../record/store-record";
import { setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { describeFile, type Read, readAny, refuse, type Understanding } from "./understand-file";

export const MOST_IMPORT_BYTES = 10 * 1024 * 1024;

export type ImportOutcome =
  | { readonly ok: true; readonly understood: Understanding; readonly stored: number | null; readonly already: boolean }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

/**
 * Reads an instrument's file and says what was understood; with `store` set, stores all of it or nothing. The same
 * file for the same target is stored once, by its hash. Failures: `not-utf-8`, `too-large`, `empty-file`, the
 * reader's own, `strange-readings` without `sure`, `unknown-rack`, `unknown-bath`, `spots-do-not-fit`.
 */
export async function importFile(
  db: Kysely<Database>,
  person: Person,
  form: FormData,
  at: Date,
): Promise<ImportOutcome> {
  const upload = form.get("file");
  if (!(upload instanceof File) || upload.size === 0) return refuse({ kind: "empty-file" });
  if (upload.size > MOST_IMPORT_BYTES)
    return refuse({
      kind: "too-large",
      megabytes: Math.round(upload.size / 1e5) / 10,
      mostMegabytes: MOST_IMPORT_BYTES / 1024 / 1024,
    });
  const bytes = Buffer.from(await upload.arrayBuffer());
  const said = Number(form.get("size") ?? bytes.length);
  if (Number.isFinite(said) && said !== bytes.length)
    return refuse({ kind: "cut-off-upload", got: bytes.length, expected: said });
  let text: string;
  try {
    text = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return refuse({ kind: "not-utf-8" });
  }
  if (text.includes("\u0000")) return refuse({ kind: "not-utf-8" });
  const unit = String(form.get("unit") ?? "");
  const order = String(form.get("dates") ?? "");
  const inSpite = String(form.get("inSpite") ?? "");
  const read = readAny(
    text,
    upload.name,
    unit,
    order === "day" ? true : order === "month" ? false : null,
    inSpite === "degF" || inSpite === "degC" ? inSpite : null,
  );
  if (!read.ok) return refuse(read.failure);
  const understood = describeFile(read.value);
  if (form.get("store") !== "yes") return { ok: true, understood, stored: null, already: false };
  if (understood.asked.length > 0 && form.get("sure") !== "yes")
    return refuse({ kind: "strange-readings", count: understood.asked.length });
  return store(
    db,
    person,
    read.value,
    understood,
    {
      bytes,
      name: upload.name,
      rack: String(form.get("rack") ?? "").trim(),
      startedAt: String(form.get("startedAt") ?? ""),
      place: String(form.get("place") ?? "").trim(),
      oven: String(form.get("oven") ?? "").trim(),
    },
    at,
  );
}

type Target = {
  readonly bytes: Buffer;
  readonly name: string;
  readonly rack: string;
  readonly startedAt: string;
  readonly place: string;
  readonly oven: string;
};

async function store(
  db: Kysely<Database>,
  person: Person,
  read: Read,
  understood: Understanding,
  target: Target,
  at: Date,
): Promise<ImportOutcome> {
  const hash = sha256(target.bytes);
  const made =
    read.kind === "bath"
      ? await bathRecords(db, person, read.file, hash, at)
      : await rackRecord(db, person, read, hash, target, at);
  if (!made.ok) return made;
  const storing = db.transaction().execute(async (trx): Promise<ImportOutcome> => {
    const fileId = newId();
    const there = await trx
      .selectFrom("record")
      .select("id")
      .where("idempotency_key", "=", made.records[0]?.idempotencyKey ?? "")
      .executeTakeFirst();
    if (there) return { ok: true, understood, stored: 0, already: true };
    await trx
      .insertInto("file")
      .values({
        id: fileId,
        sha256: hash,
        media_type: "text/plain",
        name: target.name.replace(/[^\w.\- ]/g, "_").slice(0, 120),
        size_bytes: target.bytes.length,
        bytes: target.bytes,
        added_by: person.username,
        added_at: at,
      })
      .execute();
    for (const record of made.records) {
      const outcome = await storeRecord(trx, { ...record, fileId }, at);
      // Nobody else may have completed the same load meanwhile: the whole import is given back, nothing is half there.
      if (outcome.kind !== "stored" && outcome.kind !== "already-stored") throw new NotStored(outcome);
    }
    return {
      ok: true,
      understood,
      stored:
        read.kind === "gauge"
          ? read.file.readings.length
          : read.kind === "bath"
            ? read.file.readings.length
            : read.file.samples,
      already: false,
    };
  });
  return storing.catch((error) => {
    if (error instanceof NotStored) return refuse(error.failure);
    throw error;
  });
}

class NotStored extends Error {
  constructor(readonly failure: Failure) {
    super(failure.kind);
  }
}

type Made = { ok: true; records: NewRecord[] } | { ok: false; failure: { kind: string; [detail: string]: unknown } };

async function rackRecord(
  db: Kysely<Database>,
  person: Person,
  read: Exclude<Read, { kind: "bath" }>,
  hash: string,
  target: Target,
  at: Date,
): Promise<Made> {
  const rack = await findRack(db, person, target.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: target.rack || "(none given)" });
  const base = {
    id: newId(),
    by: person.username,
    grade: "measured" as const,
    idempotencyKey: `import:${hash}:${rack.id}`,
  };
  if (read.kind === "gauge") {
    const part = (await setupAt(db, "part", at)).get(rack.part_id);
    const spots = part?.data.faces.flatMap((f) => f.spots.map((s) => ({ face: f.id, spot: s.id }))) ?? [];
    const named = [...new Set(read.file.readings.map((r) => r.spot))];
    const perSpot = read.file.spots ? null : Math.ceil(read.file.readings.length / spots.length);
    if (named.length > spots.length || (perSpot !== null && spots.length === 0))
      return refuse({ kind: "spots-do-not-fit", got: named.length, has: spots.length, part: part?.data.name });
    const byName = new Map(spots.map((s) => [s.spot.toLowerCase(), s]));
    const inOrder = new Map(named.map((name, i) => [name, spots[i]]));
    const readings = read.file.readings.map((r, i) => {
      const place =
        r.spot === null
          ? spots[Math.min(Math.floor(i / (perSpot ?? 1)), spots.length - 1)]
          : (byName.get(r.spot.toLowerCase()) ?? inOrder.get(r.spot));
      return {
        ordinal: i + 1,
        face: place?.face ?? "",
        spot: place?.spot ?? "",
        value_um: r.valueUm,
        typed: r.typed,
        rejected_reason: null,
      };
    });
    return {
      ok: true,
      records: [
        {
          ...base,
          kind: "thickness",
          happenedAt: at,
          jobId: rack.job_id,
          rackId: rack.id,
          details: {
            thickness_set: [{ coat_no: 1, source: "import", typed_unit: read.file.unit }],
            thickness_reading: readings,
          },
        },
      ],
    };
  }
  const started = read.file.startEpochS !== null ? new Date(read.file.startEpochS * 1000) : new Date(target.startedAt);
  if (Number.isNaN(started.getTime()))
    return refuse({ kind: "bad-entry", field: "start of the trace", value: target.startedAt, why: "is not a moment" });
  if (started > at) return refuse({ kind: "in-the-future", happenedAt: started.toISOString() });
  const ovens = [...(await setupAt(db, "oven", at)).values()];
  const oven =
    target.oven === ""
      ? (ovens.find((o) => o.data.type !== "lamps") ?? ovens[0])
      : ovens.find((o) => o.code.toLowerCase() === target.oven.toLowerCase());
  if (!oven)
    return target.oven === ""
      ? refuse({ kind: "unknown-oven" })
      : refuse({ kind: "unknown-oven-name", name: target.oven });
  const bake_channel = read.file.channels.map((c, i) => ({
    ordinal: i + 1,
    name: c.name,
    medium: c.medium,
    time_s: [...c.trace.timeS],
    temp_c: [...c.trace.tempC],
  }));
  const open = await loadWithoutTrace(db, rack.id, started);
  if (open)
    return {
      ok: true,
      records: [
        {
          ...base,
          kind: "bake",
          happenedAt: started,
          supersedes: { recordId: open.id, reason: "Trace added" },
          details: {
            ...open.details,
            bake: (open.details.bake ?? []).map((row) => ({ ...row, door_closed_at: started })),
            bake_channel,
          },
        },
      ],
    };
  return {
    ok: true,
    records: [
      {
        ...base,
        kind: "bake",
        happenedAt: started,
        details: {
          bake: [
            {
              oven_id: oven.id,
              load_no: `import ${hash.slice(0, 6)}`,
              powder_id: rack.powder_id,
              door_closed_at: started,
              pulled_at: null,
              timing: "metal-at-temperature",
              set_point_c: null,
            },
          ],
          bake_place: [{ rack_id: rack.id, place: target.place || "–", channel: null }],
          bake_channel,
        },
      },
    ],
  };
}

/** A trace this near to the door of a load without one belongs to it. */
const SAME_BAKE_MS = 60 * 60_000;

/** The load this rack was put into by hand about then, if it has no trace yet: the file completes it. */
async function loadWithoutTrace(db: Kysely<Database>, rackId: string, started: Date) {
  const open = await db
    .selectFrom("bake_place")
    .innerJoin("bake", "bake.record_id", "bake_place.record_id")
    .select(["bake.record_id as id"])
    .where("bake_place.rack_id", "=", rackId)
    // Under lamps the readings of its sections are its trace.
    .where("bake.sections", "is", null)
    .where("bake.door_closed_at", ">=", new Date(started.getTime() - SAME_BAKE_MS))
    .where("bake.door_closed_at", "<=", new Date(started.getTime() + SAME_BAKE_MS))
    .where(sql<boolean>`not exists (select 1 from record s where s.supersedes = bake.record_id)`)
    .where(sql<boolean>`not exists (select 1 from bake_channel c where c.record_id = bake.record_id)`)
    .orderBy("bake.door_closed_at", "desc")
    .limit(1)
    .executeTakeFirst();
  if (!open) return null;
  return { id: open.id, details: (await readDetails(db, [open.id], tablesOfKind.bake)).get(open.id) ?? {} };
}

async function bathRecords(
  db: Kysely<Database>,
  person: Person,
  file: BathFile,
  hash: string,
  at: Date,
): Promise<Made> {
  const [baths, site] = await Promise.all([setupAt(db, "bath", at), siteAt(db, at)]);
  const groups = new Map<string, BathFile["readings"][number][]>();
  for (const reading of file.readings)
    groups.set(`${reading.tank}|${reading.at}`, [...(groups.get(`${reading.tank}|${reading.at}`) ?? []), reading]);
  const moments = await momentsOf(db, [...new Set(file.readings.map((r) => r.at))], site.timeZone);
  const records: NewRecord[] = [];
  for (const [key, readings] of groups) {
    const first = readings[0] as BathFile["readings"][number];
    const bath = [...baths.values()].find((b) => b.code.toLowerCase() === first.tank.toLowerCase());
    if (!bath) return refuse({ kind: "unknown-bath", name: first.tank });
    const happenedAt = moments.get(first.at) as Date;
    if (happenedAt > at) return refuse({ kind: "in-the-future", happenedAt: happenedAt.toISOString() });
    records.push({
      id: newId(),
      kind: "bath-check",
      happenedAt,
      by: person.username,
      grade: "measured",
      idempotencyKey: `import:${hash}:${key}`,
      bathId: bath.id,
      details: {
        bath_check: readings.map((r, i) => ({
          ordinal: i + 1,
          parameter: r.parameter,
          value: r.value,
          typed: r.typed,
          typed_unit: r.typedUnit,
          titrant_ml: null,
          blank_ml: null,
          factor: null,
        })),
      },
    });
  }
  return { ok: true, records };
}

/** Site times as moments, by the database's own time zone tables. */
async function momentsOf(db: Kysely<Database>, local: readonly string[], timeZone: string): Promise<Map<string, Date>> {
  const { rows } = await sql<{
    text: string;
    moment: Date;
  }>`select t as text, (t::timestamp at time zone ${timeZone}) as moment from unnest(${local}::text[]) as t`.execute(
    db,
  );
  return new Map(rows.map((row) => [row.text, row.moment]));
}
