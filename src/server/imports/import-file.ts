import { type Kysely, sql } from "kysely";
import type { BathFile } from "@/core/instrument-files";
import type { EntryInput } from "@/core/kinds";
import type { Failure } from "@/core/result";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { storeEntry } from "../entries/store-entry";
import { newId } from "../now";
import { findRack } from "../rack/find-rack";
import { sha256 } from "../record/canonical";
import { type SetupItem, setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";
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
  clock: Clock,
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
      sure: form.get("sure") === "yes",
      leftOut: String(form.get("leftOut") ?? "").trim() || null,
    },
    clock,
  );
}

type Target = {
  readonly bytes: Buffer;
  readonly name: string;
  readonly rack: string;
  readonly startedAt: string;
  readonly place: string;
  readonly oven: string;
  /** What was asked about was looked at, and stands as read. */
  readonly sure: boolean;
  /** Why the order of work is set aside; of who may. */
  readonly leftOut: string | null;
};

/** Everything the file holds as entries of the one schema, stored together with the file they came from, or nothing. */
async function store(
  db: Kysely<Database>,
  person: Person,
  read: Read,
  understood: Understanding,
  target: Target,
  clock: Clock,
): Promise<ImportOutcome> {
  const hash = sha256(target.bytes);
  return write<ImportOutcome>(db, [lock.key(`file:${hash}`)], clock, async (trx, at) => {
    const made =
      read.kind === "bath"
        ? await bathEntries(trx, read.file, hash, target.sure, at)
        : await rackEntry(trx, person, read, hash, target, at);
    if (!made.ok) return made;
    // The same file for the same target is there once, under its own keys.
    const [first] = made.entries;
    const there = await trx
      .selectFrom("record")
      .select("id")
      .where("idempotency_key", "in", [first?.idempotencyKey ?? "", `${first?.idempotencyKey}:bake`])
      .executeTakeFirst();
    if (there) return { ok: true, understood, stored: 0, already: true };
    const fileId = newId();
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
    for (const [i, entry] of made.entries.entries()) {
      const outcome = await storeEntry(trx, person, entry, at, { fileId });
      if (!outcome.ok) return made.entries.length > 1 ? refuse({ ...outcome.failure, line: i + 1 }) : outcome;
    }
    const stored = read.kind === "oven" ? read.file.samples : read.file.readings.length;
    return { ok: true, understood, stored, already: false };
  });
}

type Entries =
  | { readonly ok: true; readonly entries: readonly EntryInput[] }
  | { readonly ok: false; readonly failure: Failure };

async function rackEntry(
  db: Kysely<Database>,
  person: Person,
  read: Exclude<Read, { kind: "bath" }>,
  hash: string,
  target: Target,
  at: Date,
): Promise<Entries> {
  const rack = await findRack(db, person, target.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: target.rack || "(none given)" });
  const base = { id: newId(), idempotencyKey: `import:${hash}:${rack.id}`, rack: rack.number };
  if (read.kind === "gauge") {
    const placed = placesOf(read.file, (await setupAt(db, "part", at)).get(rack.part_id));
    if (!placed.ok) return placed;
    return {
      ok: true,
      entries: [
        {
          ...base,
          kind: "thickness",
          happenedAt: at.toISOString(),
          source: "import",
          typedUnit: read.file.unit,
          coatNo: 1,
          readings: placed.readings,
          sure: target.sure,
        },
      ],
    };
  }
  const started = read.file.startEpochS !== null ? new Date(read.file.startEpochS * 1000) : new Date(target.startedAt);
  if (Number.isNaN(started.getTime()))
    return refuse({ kind: "bad-entry", field: "start of the trace", value: target.startedAt, why: "is not a moment" });
  return {
    ok: true,
    entries: [
      {
        ...base,
        kind: "trace",
        happenedAt: started.toISOString(),
        oven: target.oven || null,
        place: target.place,
        loadNo: `import ${hash.slice(0, 6)}`,
        leftOut: target.leftOut,
        channels: read.file.channels.map((c) => ({
          name: c.name,
          medium: c.medium,
          timeS: [...c.trace.timeS],
          tempC: [...c.trace.tempC],
        })),
      },
    ],
  };
}

/** Each reading at its spot of the part: by its name where the file names the part's own, else in the file's order. */
function placesOf(
  file: Extract<Read, { kind: "gauge" }>["file"],
  part: SetupItem<"part"> | undefined,
):
  | { readonly ok: true; readonly readings: { face: string; spot: string; valueUm: number; typed: string }[] }
  | { readonly ok: false; readonly failure: Failure } {
  const spots = part?.data.faces.flatMap((f) => f.spots.map((s) => ({ face: f.id, spot: s.id }))) ?? [];
  const named = [...new Set(file.readings.map((r) => r.spot))];
  const perSpot = file.spots ? null : Math.ceil(file.readings.length / spots.length);
  if (named.length > spots.length || (perSpot !== null && spots.length === 0))
    return refuse({ kind: "spots-do-not-fit", got: named.length, has: spots.length, part: part?.data.name });
  const byName = new Map(spots.map((s) => [s.spot.toLowerCase(), s]));
  const inOrder = new Map(named.map((name, i) => [name, spots[i]]));
  const readings = file.readings.map((r, i) => {
    const place =
      r.spot === null
        ? spots[Math.min(Math.floor(i / (perSpot ?? 1)), spots.length - 1)]
        : (byName.get(r.spot.toLowerCase()) ?? inOrder.get(r.spot));
    return { face: place?.face ?? "", spot: place?.spot ?? "", valueUm: r.valueUm, typed: r.typed };
  });
  return { ok: true, readings };
}

/** One check for each tank and moment the file names. */
async function bathEntries(
  db: Kysely<Database>,
  file: BathFile,
  hash: string,
  sure: boolean,
  at: Date,
): Promise<Entries> {
  const site = await siteAt(db, at);
  const groups = new Map<string, BathFile["readings"][number][]>();
  for (const reading of file.readings) {
    const key = `${reading.tank}|${reading.at}`;
    groups.set(key, [...(groups.get(key) ?? []), reading]);
  }
  const moments = await momentsOf(db, [...new Set(file.readings.map((r) => r.at))], site.timeZone);
  return {
    ok: true,
    entries: [...groups].map(([key, readings]) => ({
      id: newId(),
      idempotencyKey: `import:${hash}:${key}`,
      kind: "bath-check" as const,
      bath: readings[0]?.tank ?? "",
      happenedAt: (moments.get(readings[0]?.at ?? "") as Date).toISOString(),
      sure,
      values: readings.map(({ parameter, value, typed, typedUnit }) => ({ parameter, value, typed, typedUnit })),
    })),
  };
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
