import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { type BathFile, fileKindOf, fileKinds, type TraceLayout } from "@/core/instrument-files";
import type { EntryInput } from "@/core/kinds";
import type { Failure } from "@/core/result";
import { momentOf } from "@/core/shifts";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { storeEntry } from "../entries/store-entry";
import { badEntry } from "../input";
import { newId } from "../now";
import { findRack } from "../rack/find-rack";
import { sha256 } from "../record/canonical";
import { type SetupItem, setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type Clock, momentOf as readClock, write } from "../write";
import { decodeFile } from "./decode";
import {
  layoutLock,
  layoutRemembered,
  layoutSchema,
  loadChosen,
  loadsWithoutTrace,
  proposeLoad,
  rememberLayout,
  type TraceLoad,
} from "./trace-target";
import { describeFile, type Read, readAny, refuse, type Understanding } from "./understand-file";

export const MOST_IMPORT_BYTES = 10 * 1024 * 1024;

export type ImportOutcome =
  | { readonly ok: true; readonly understood: Understanding; readonly stored: number | null; readonly already: boolean }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

/**
 * Reads an instrument's file and says what was understood; with `store` set, stores all of it or nothing. The same
 * file for the same target is stored once, by its hash. Failures: those of `decodeFile`, `too-large`, `empty-file`, the
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
  const size = Number(form.get("size") ?? bytes.length);
  if (Number.isFinite(size) && size !== bytes.length)
    return refuse({ kind: "cut-off-upload", got: bytes.length, expected: size });
  const decoded = await decodeFile(bytes);
  if (!decoded.ok) return refuse(decoded.failure);
  const { text } = decoded;
  const said = (name: string) => String(form.get(name) ?? "").trim();
  const layout = layoutSaid(said("layout"));
  if (!layout.ok) return refuse(layout.failure);
  const clockNow = readClock(clock);
  const { timeZone, dateOrder } = await siteAt(db, clockNow);
  const order = said("dates") || dateOrder;
  const kind = fileKinds.find((k) => k === said("kind")) ?? null;
  const remembered =
    layout.value === null && (kind ?? fileKindOf(text)) !== "gauge" ? await layoutRemembered(db, text, clockNow) : null;
  const inSpite = said("inSpite");
  const read = readAny(text, upload.name, {
    kind: kind ?? (remembered ? "oven" : null),
    unit: said("unit"),
    // Where no date of the file tells, the shop's own order does; what was taken is shown.
    dayFirst: order === "day" || order === "dmy" ? true : order === "month" || order === "mdy" ? false : null,
    inSpite: inSpite === "degF" || inSpite === "degC" ? inSpite : null,
    layout: layout.value,
    remembered: remembered?.layout ?? null,
    timeZone,
  });
  if (!read.ok) return refuse(read.failure);
  const loads = read.value.kind === "oven" ? await loadsWithoutTrace(db, timeZone, clockNow) : [];
  const understood: Understanding = {
    ...describeFile(read.value),
    writtenAs: decoded.as,
    sheetsLeftOut: decoded.sheetsLeftOut,
    remembered: remembered && { by: remembered.by, at: remembered.at.toISOString() },
    loads,
    proposed: read.value.kind === "oven" ? proposeLoad(loads, read.value.file, read.value.startLocalS, timeZone) : null,
    timeOfDayS: read.value.kind === "oven" ? read.value.file.startTimeOfDayS : null,
  };
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
      text,
      mediaType: decoded.as?.startsWith("spreadsheet") ? XLSX : "text/plain",
      name: upload.name,
      load: UUID.test(said("load")) ? await loadChosen(db, timeZone, said("load")) : null,
      rack: said("rack"),
      startedAt: said("startedLocal") === "" ? said("startedAt") : momentSaid(said("startedLocal"), timeZone),
      place: said("place"),
      oven: said("oven"),
      sure: form.get("sure") === "yes",
      leftOut: said("leftOut") || null,
    },
    clock,
  );
}

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;
const XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

/** How a person says a trace is to be read; null where they say nothing of it. */
function layoutSaid(
  json: string,
): { readonly ok: true; readonly value: TraceLayout | null } | { readonly ok: false; readonly failure: Failure } {
  if (json === "") return { ok: true, value: null };
  const bad = { kind: "bad-entry", field: "columns", value: "", why: "cannot be read: read the file again" };
  try {
    const parsed = v.safeParse(layoutSchema, JSON.parse(json));
    return parsed.success ? { ok: true, value: parsed.output } : refuse(badEntry(parsed.issues));
  } catch {
    return refuse(bad);
  }
}
/** A moment typed by the shop's clock, as ISO; what is none stays as it was typed. */
function momentSaid(local: string, timeZone: string): string {
  const ms = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}/.test(local) ? Date.parse(`${local}Z`) : Number.NaN;
  return Number.isNaN(ms) ? local : new Date(momentOf(ms, timeZone)).toISOString();
}

type Target = {
  readonly bytes: Buffer;
  readonly text: string;
  readonly mediaType: string;
  /** The load a trace is of, as it was chosen. */
  readonly load: TraceLoad | null;
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
  return write<ImportOutcome>(db, [lock.key(`file:${hash}`), layoutLock], clock, async (trx, at) => {
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
        media_type: target.mediaType,
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
    if (read.kind === "oven") await rememberLayout(trx, person, target.text, read.layout, at);
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
  // Of a load chosen, any of its racks stands for it.
  const number = target.load && read.kind === "oven" ? (target.load.racks[0]?.number ?? "") : target.rack;
  const rack = await findRack(db, person, number);
  if (!rack) return refuse({ kind: "unknown-rack", number: number || "(none given)" });
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
  // What was looked at and typed goes before what the file says.
  const started =
    target.startedAt === "" && read.file.startEpochS !== null
      ? new Date(read.file.startEpochS * 1000)
      : new Date(target.startedAt);
  if (Number.isNaN(started.getTime()))
    return refuse({ kind: "bad-entry", field: "start of the trace", value: target.startedAt, why: "is not a moment" });
  return {
    ok: true,
    entries: [
      {
        ...base,
        kind: "trace",
        happenedAt: started.toISOString(),
        oven: target.load?.oven ?? (target.oven || null),
        place: target.place,
        loadNo: `import ${hash.slice(0, 6)}`,
        leftOut: target.leftOut,
        channels: read.file.channels.map((c) => ({
          name: c.name,
          medium: c.medium,
          rack: c.rack,
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
