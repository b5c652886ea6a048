import { type Kysely, sql } from "kysely";
import { afterStop } from "@/core/line";
import { correctionsOf, stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { inLineAt } from "../line/line-stops";
import { refuse } from "../outcome";
import { setupAt } from "../setup/setup-data";
import type { Made, Makes, Of, Part } from "./made";

export const makes: Makes<"line-stop" | "line-stop-back"> = {
  "line-stop": ({ db }, entry) => lineStop(db, entry),
  "line-stop-back": ({ db }, entry) => takeStopBack(db, entry),
};

/**
 * A stop of the line: kept as it was, and every passage it lengthened or put off is superseded by itself as it then
 * was, with the stop as the reason. Nothing is lost: the passages as planned stay on record. Failures: `unknown-set-up`,
 * `bad-stop`, `stop-in-a-stop` (it begins inside another).
 */
async function lineStop(db: Kysely<Database>, entry: Of<"line-stop">): Promise<Made> {
  const line = [...(await setupAt(db, "line", entry.happenedAt)).values()].find(
    (l) => l.code.toLowerCase() === entry.line.toLowerCase(),
  );
  if (!line) return refuse({ kind: "unknown-set-up", what: "line", name: entry.line });
  const stop = { fromMs: entry.happenedAt.getTime(), toMs: entry.until.getTime() };
  const stopKey = `${entry.idempotencyKey}:stop`;
  const stopPart: Part = {
    name: "stop",
    kind: "line-stop",
    happenedAt: entry.happenedAt,
    grade: "measured",
    details: {
      line_stop: [{ line_id: line.id, from_at: entry.happenedAt, to_at: entry.until, cause: entry.cause }],
    },
  };
  const inside = await db
    .selectFrom("line_stop")
    .innerJoin("record", "record.id", "line_stop.record_id")
    .select("line_stop.from_at")
    .where("line_stop.line_id", "=", line.id)
    .where("line_stop.from_at", "<", entry.until)
    .where("line_stop.to_at", ">", entry.happenedAt)
    // Sent twice at once: the other of the two is no other stop.
    .where("record.idempotency_key", "!=", stopKey)
    .where(sql<boolean>`${stands("record.id")}`)
    .executeTakeFirst();
  if (inside) return refuse({ kind: "stop-in-a-stop", from: inside.from_at.toISOString() });
  const runs = await inLineAt(db, { id: line.id, stages: line.data.stages.map((s) => s.stage) }, entry.happenedAt);
  // Sent before: its passages are moved already and must not be moved again; the store compares the stop itself. Asked
  // after the passages are read, so that one stored meanwhile is either seen here or met by its own keys.
  const again = await db.selectFrom("record").select("id").where("idempotency_key", "=", stopKey).executeTakeFirst();
  if (again) return { ok: true, several: [stopPart] };
  const moved: Part[] = [];
  for (const run of runs.values()) {
    const after = afterStop(run, stop);
    if (!after.ok) return refuse(after.error);
    for (const [i, was] of run.entries()) {
      const is = after.value?.passages[i];
      if (!is || (is.enteredMs === was.enteredMs && is.leftMs === was.leftMs)) continue;
      moved.push({
        name: `moved:${was.recordId}`,
        kind: "passage",
        happenedAt: new Date(is.enteredMs),
        grade: "by-procedure",
        jobId: was.jobId,
        rackId: was.rackId,
        supersedes: { recordId: was.recordId, reason: `The line stood: ${entry.cause}`, inCourse: true },
        details: {
          passage: [
            {
              stage: was.stage,
              entered_at: new Date(is.enteredMs),
              left_at: new Date(is.leftMs),
              source: "line-speed",
              line_id: line.id,
            },
          ],
        },
      });
    }
  }
  const checked = afterStop([{ stage: "", enteredMs: stop.fromMs, leftMs: stop.fromMs + 1 }], stop);
  return checked.ok ? { ok: true, several: [stopPart, ...moved] } : refuse(checked.error);
}

/**
 * A stop that never was, taken back: it is superseded with the reason, and every passage it moved is superseded by itself
 * as it was before. Failures: `unknown-stop`, `stop-built-upon` (a passage was corrected since: that one first), and the
 * store's `already-superseded`.
 */
async function takeStopBack(db: Kysely<Database>, entry: Of<"line-stop-back">): Promise<Made> {
  const stop = await db
    .selectFrom("record")
    .innerJoin("line_stop", "line_stop.record_id", "record.id")
    .select(["record.id", "record.happened_at", "record.stored_at", "record.idempotency_key"])
    .where("record.id", "=", entry.stop)
    .executeTakeFirst();
  if (!stop) return refuse({ kind: "unknown-stop" });
  const prefix = stop.idempotency_key.replace(/stop$/, "moved:");
  const { rows } = await sql<{
    id: string;
    rack_id: string;
    job_id: string;
    number: string;
    stage: string;
    entered_at: Date;
    left_at: Date | null;
    source: string;
    line_id: string | null;
  }>`
    select m.id, m.rack_id, m.job_id, k.number, p.stage, p.entered_at, p.left_at, p.source, p.line_id
    from record m join passage p on p.record_id = m.supersedes join rack k on k.id = m.rack_id
    where m.stored_at = ${stop.stored_at} and m.kind = 'passage' and starts_with(m.idempotency_key, ${prefix})`.execute(
    db,
  );
  const again = `${entry.idempotencyKey}:`;
  const later = await correctionsOf(
    db,
    rows.map((row) => row.id),
  );
  const built = rows.find((row) => later.has(row.id) && !later.get(row.id)?.key.startsWith(again));
  if (built) return refuse({ kind: "stop-built-upon", number: built.number, stage: built.stage });
  return {
    ok: true,
    several: [
      {
        name: "stop",
        kind: "line-stop",
        happenedAt: entry.happenedAt,
        grade: "measured",
        supersedes: { recordId: stop.id, reason: entry.reason },
        details: {},
      },
      ...rows.map(
        (row): Part => ({
          name: `back:${row.id}`,
          kind: "passage",
          happenedAt: row.entered_at,
          grade: "by-procedure",
          jobId: row.job_id,
          rackId: row.rack_id,
          supersedes: { recordId: row.id, reason: `The stop was taken back: ${entry.reason}`, inCourse: true },
          details: {
            passage: [
              {
                stage: row.stage,
                entered_at: row.entered_at,
                left_at: row.left_at,
                source: row.source,
                line_id: row.line_id,
              },
            ],
          },
        }),
      ),
    ],
  };
}
