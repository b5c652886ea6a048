import { createHash } from "node:crypto";
import { once } from "node:events";
import type { Writable } from "node:stream";
import { type Kysely, sql } from "kysely";
import { from as copyFrom } from "pg-copy-streams";
import { type GaugeTable, gaugeRow, gaugeTable } from "@/core/instrument-files";
import type { Failure } from "@/core/result";
import { NeighbourWatch, type StrangeReading } from "@/core/thickness";
import { connectAlone } from "@/db/connect";
import { forPerson } from "@/db/queries/for-person";
import type { Database } from "@/db/schema";
import { refreshStanding } from "../line/standing";
import { newId } from "../now";
import { detailsDigest, RowsDigest } from "../record/content";
import { insertDetails } from "../record/insert-details";
import { baseRow, type NewRecord } from "../record/store-record";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";

export type ManyOutcome =
  | {
      readonly ok: true;
      readonly readings: number;
      readonly leftOut: number;
      readonly racks: number;
      readonly already: boolean;
    }
  | { readonly ok: false; readonly failure: Failure };

/** The first bytes tell the table's shape. */
const HEAD_BYTES = 64 * 1024;
/** Sent to the database at a time. */
const COPY_CHARACTERS = 256 * 1024;
const PROGRESS_EVERY = 20_000;
const MOST_PROBLEMS = 20;
/** A larger file is a mistake, or several. */
export const MOST_MANY_BYTES = 500 * 1024 * 1024;

class Refused extends Error {
  constructor(readonly failure: Failure) {
    super(failure.kind);
  }
}

type Faces = Map<string, Map<string, { sum: number; n: number }>>;
type Target = {
  readonly id: string;
  readonly rackId: string;
  readonly jobId: string;
  readonly spots: ReadonlyMap<string, { readonly face: string; readonly spot: string }>;
  readonly digest: RowsDigest;
  readonly faces: Faces;
  readonly watch: NeighbourWatch;
  ordinal: number;
};

/** A value as COPY takes it: tab, newline and backslash are its own marks. */
const escaped = (text: string): string =>
  /[\\\t\n\r]/.test(text)
    ? text.replace(/[\\\t\n\r]/g, (c) => ({ "\\": "\\\\", "\t": "\\t", "\n": "\\n", "\r": "\\r" })[c] ?? c)
    : text;

/**
 * A file of very many readings, as it comes: a table with a column for the film and one for the spot, and one for the rack
 * where it holds several. All of it is stored in one transaction, one set a rack, or nothing; memory does not grow with
 * the readings. `progress` is told how far it is, `signal` stops it. Failures: `too-large`, `not-utf-8`, those of
 * `gaugeTable`, `no-spot-column`, `no-rack-named`, `unknown-rack`, `unknown-spot` (with line), `bad-rows` and
 * `strange-readings` (the first twenty), `empty-file`, `import-stopped`.
 */
export async function importMany(
  address: string,
  person: Person,
  source: AsyncIterable<Uint8Array>,
  options: {
    readonly rack: string | null;
    readonly unit: "um" | "mil" | null;
    readonly at: Date;
    /** Readings unlike their neighbours were looked at and stand. */
    readonly sure?: boolean;
    readonly signal?: AbortSignal;
    readonly progress?: (readings: number, bytes: number) => void;
  },
): Promise<ManyOutcome> {
  const { client, db, end } = await connectAlone(address);
  try {
    await client.query("begin");
    const targets = await targetsOf(db, person, options.at);
    const copy = client.query(
      copyFrom("copy thickness_reading (record_id, ordinal, face, spot, value_um, typed, rejected_reason) from stdin"),
    ) as Writable;
    let failed: Error | null = null;
    copy.on("error", (error: Error) => {
      failed = error;
    });
    let read: Awaited<ReturnType<typeof readAll>>;
    try {
      read = await readAll(source, targets, options, async (text) => {
        if (failed) throw failed;
        if (!copy.write(text)) await once(copy, "drain");
      });
    } catch (error) {
      // What was copied is taken back with the transaction; the copy itself must be ended first.
      copy.destroy();
      throw error;
    }
    const finished = new Promise<void>((resolve, reject) => {
      copy.once("finish", resolve);
      copy.once("error", reject);
    });
    copy.end();
    await finished;
    const records = read.targets.map((t) => recordOf(t, person, read.hash, read.table, options.at));
    const keys = records.map((r) => r.record.idempotencyKey);
    const there = await sql<{
      n: number;
    }>`select count(*)::int as n from record where idempotency_key = any(${keys}::text[])`.execute(db);
    if ((there.rows[0]?.n ?? 0) > 0) {
      await client.query("rollback");
      return { ok: true, readings: 0, leftOut: read.leftOut, racks: 0, already: true };
    }
    for (let i = 0; i < records.length; i += 1000)
      await db
        .insertInto("record")
        .values(records.slice(i, i + 1000).map((r) => baseRow(r.record, options.at, r.digest)))
        .execute();
    await insertDetails(
      db,
      "thickness_set",
      records.map((r) => ({ record_id: r.record.id, values: r.set })),
    );
    await insertFaces(db, read.targets);
    await refreshStanding(
      db,
      records.map((r) => r.record.rackId ?? ""),
    );
    await client.query("commit");
    return { ok: true, readings: read.readings, leftOut: read.leftOut, racks: records.length, already: false };
  } catch (error) {
    await client.query("rollback").catch(() => {});
    if (error instanceof Refused) return { ok: false, failure: error.failure };
    throw error;
  } finally {
    await end().catch(() => {});
  }
}

/** Racks this person may see, by number; a target is made when the first reading names it. O(racks). */
async function targetsOf(db: Kysely<Database>, person: Person, at: Date) {
  const [parts, racks] = await Promise.all([
    setupAt(db, "part", at),
    sql<{ id: string; number: string; job_id: string; part_id: string }>`
      select k.id, k.number, k.job_id, j.part_id from rack k join job j on j.id = k.job_id
      where ${forPerson(person, "j.customer_id")}`.execute(db),
  ]);
  const spotsOf = new Map(
    [...parts].map(([id, part]) => [
      id,
      new Map(
        part.data.faces.flatMap((f) => f.spots.map((s) => [s.id.toLowerCase(), { face: f.id, spot: s.id }] as const)),
      ),
    ]),
  );
  const byNumber = new Map(racks.rows.map((r) => [r.number.toLowerCase(), r]));
  const made = new Map<string, Target>();
  const quoted = new Map<string, string>();
  return {
    of(number: string, line: number): Target {
      const key = number.trim().toLowerCase();
      const known = made.get(key);
      if (known) return known;
      const rack = byNumber.get(key);
      if (!rack) throw new Refused({ kind: "unknown-rack", number: number || "(none given)", line });
      const target: Target = {
        id: newId(),
        rackId: rack.id,
        jobId: rack.job_id,
        spots: spotsOf.get(rack.part_id) ?? new Map(),
        digest: new RowsDigest("thickness_reading", quoted),
        faces: new Map(),
        watch: new NeighbourWatch(),
        ordinal: 0,
      };
      made.set(key, target);
      return target;
    },
    all: (): readonly Target[] => [...made.values()],
  };
}

/** Reads the source line by line and hands on what COPY takes. O(readings); holds one chunk and one line. */
async function readAll(
  source: AsyncIterable<Uint8Array>,
  targets: Awaited<ReturnType<typeof targetsOf>>,
  { rack, unit, sure, signal, progress }: Parameters<typeof importMany>[3],
  write: (text: string) => Promise<void>,
) {
  const hash = createHash("sha256");
  const decoder = new TextDecoder("utf-8", { fatal: true });
  const problems: { line: number; why: string; text: string }[] = [];
  const asked: { line: number; text: string; strange: StrangeReading }[] = [];
  let [bytes, readings, leftOut, line, strangeCount] = [0, 0, 0, 0, 0];
  let table: (GaugeTable & { headerLine: number }) | null = null;
  let rest = "";
  let out = "";
  const take = (raw: string, shape: GaugeTable): void => {
    const row = gaugeRow(raw, shape);
    if (row.kind === "left-out") leftOut++;
    else if (row.kind === "problem") {
      if (problems.length < MOST_PROBLEMS) problems.push({ line, why: row.why, text: row.text });
    } else if (row.kind === "reading" && problems.length === 0) {
      const target = targets.of(row.rack || (rack ?? ""), line);
      const place = target.spots.get(row.spot.toLowerCase());
      if (!place) throw new Refused({ kind: "unknown-spot", spot: row.spot, of: `rack ${row.rack || rack}`, line });
      const strange = sure ? null : target.watch.look(row.valueUm);
      if (strange && strangeCount++ < MOST_PROBLEMS) asked.push({ line, text: row.typed, strange });
      const ordinal = ++target.ordinal;
      const { face, spot } = place;
      target.digest.add({ ordinal, face, spot, value_um: row.valueUm, typed: row.typed, rejected_reason: null });
      const spots = target.faces.get(face) ?? new Map<string, { sum: number; n: number }>();
      if (spots.size === 0) target.faces.set(face, spots);
      const known = spots.get(spot);
      if (known) {
        known.sum += row.valueUm;
        known.n++;
      } else spots.set(spot, { sum: row.valueUm, n: 1 });
      out += `${target.id}\t${ordinal}\t${escaped(face)}\t${escaped(spot)}\t${row.valueUm}\t${escaped(row.typed)}\t\\N\n`;
      if (++readings % PROGRESS_EVERY === 0) progress?.(readings, bytes);
    }
  };
  const shapeOf = (head: string): GaugeTable & { headerLine: number } => {
    const found = gaugeTable(head, unit);
    if (!found.ok) throw new Refused(found.error);
    if (found.value.spotAt < 0) throw new Refused({ kind: "no-spot-column" });
    if (found.value.rackAt < 0 && !rack) throw new Refused({ kind: "no-rack-named" });
    return found.value;
  };
  const drain = async (last: boolean): Promise<void> => {
    if (!table) {
      if (rest.length < HEAD_BYTES && !last) return;
      // The last line of the head may be cut in the middle.
      const cut = rest.lastIndexOf("\n");
      table = shapeOf((last || cut < 0 ? rest : rest.slice(0, cut)).replace(/^\uFEFF/, ""));
    }
    let from = 0;
    for (let to = rest.indexOf("\n", from); to >= 0; to = rest.indexOf("\n", from)) {
      line++;
      if (line > table.headerLine)
        take(rest.charCodeAt(to - 1) === 13 ? rest.slice(from, to - 1) : rest.slice(from, to), table);
      from = to + 1;
      if (out.length > COPY_CHARACTERS) {
        await write(out);
        out = "";
      }
    }
    rest = rest.slice(from);
    if (last && rest !== "") {
      line++;
      if (line > table.headerLine) take(rest, table);
      rest = "";
    }
  };
  for await (const chunk of source) {
    if (signal?.aborted) throw new Refused({ kind: "import-stopped", readings });
    bytes += chunk.length;
    if (bytes > MOST_MANY_BYTES)
      throw new Refused({
        kind: "too-large",
        megabytes: Math.round(bytes / 1e6),
        mostMegabytes: MOST_MANY_BYTES / 1024 / 1024,
      });
    hash.update(chunk);
    try {
      rest += decoder.decode(chunk, { stream: true });
    } catch {
      throw new Refused({ kind: "not-utf-8" });
    }
    await drain(false);
  }
  if (signal?.aborted) throw new Refused({ kind: "import-stopped", readings });
  if (rest === "" && !table) throw new Refused({ kind: "empty-file" });
  await drain(true);
  if (problems.length > 0) throw new Refused({ kind: "bad-rows", problems });
  if (strangeCount > 0) throw new Refused({ kind: "strange-readings", count: strangeCount, asked });
  if (readings === 0) throw new Refused({ kind: "empty-file" });
  if (out !== "") await write(out);
  progress?.(readings, bytes);
  return {
    hash: hash.digest("hex"),
    readings,
    leftOut,
    targets: targets.all(),
    table: table as GaugeTable | null,
  };
}

function recordOf(target: Target, person: Person, hash: string, table: GaugeTable | null, at: Date) {
  const set = { coat_no: 1, source: "import", typed_unit: table?.unit ?? "um" };
  const record: NewRecord = {
    id: target.id,
    kind: "thickness",
    happenedAt: at,
    by: person.username,
    grade: "measured",
    idempotencyKey: `import:${hash}:${target.rackId}`,
    jobId: target.jobId,
    rackId: target.rackId,
    details: {},
  };
  const digest = `${target.digest.line()}\n${detailsDigest({ thickness_set: [set] })}`;
  return { record, set, digest };
}

async function insertFaces(db: Kysely<Database>, targets: readonly Target[]): Promise<void> {
  const rows = targets.flatMap((t) =>
    [...t.faces].map(([face, spots]) => {
      const means = [...spots.values()].map(({ sum, n }) => sum / n);
      return {
        record_id: t.id,
        face,
        spots: means.length,
        readings: [...spots.values()].reduce((n, s) => n + s.n, 0),
        sum_um: means.reduce((a, b) => a + b, 0),
        sum_sq_um: means.reduce((a, b) => a + b * b, 0),
        lowest_um: means.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY),
        highest_um: means.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY),
      };
    }),
  );
  for (let i = 0; i < rows.length; i += 5000)
    await sql`insert into film_face select * from json_populate_recordset(null::film_face, ${JSON.stringify(rows.slice(i, i + 5000))}::json)`.execute(
      db,
    );
}
