import { type Kysely, sql } from "kysely";
import type { Database } from "@/db/schema";
import { readDetails, tablesOfKind } from "../record/read-details";
import { storeRecord } from "../record/store-record";
import { setupAt } from "../setup/setup-data";
import { may, type Person } from "../sign-in/roles";
import type { EntryOutcome } from "./store-entry";

/**
 * Closes the oldest open load of an oven: the bake is superseded by itself with its pull time, so that the open one
 * stays on record. Failures: `role-refused`, `unknown-oven-name`, `nothing-in-oven`, and the store's own.
 */
export async function pullOven(
  db: Kysely<Database>,
  person: Person,
  ovenWord: string,
  id: string,
  at: Date,
): Promise<EntryOutcome> {
  if (!may(person.role, "log-line"))
    return { ok: false, failure: { kind: "role-refused", role: person.role, needs: "log-line" } };
  const oven = [...(await setupAt(db, "oven", at)).values()].find(
    (o) => o.code.toLowerCase() === `oven ${ovenWord.toLowerCase()}`,
  );
  if (!oven) return { ok: false, failure: { kind: "unknown-oven-name", name: `oven ${ovenWord}` } };
  const again = await db
    .selectFrom("record")
    .select("id")
    .where("idempotency_key", "=", `pull:${id}`)
    .executeTakeFirst();
  if (again) return { ok: true, recordId: again.id, already: true };
  const open = await db
    .selectFrom("record")
    .innerJoin("bake", "bake.record_id", "record.id")
    .selectAll("record")
    .where("record.kind", "=", "bake")
    .where("bake.oven_id", "=", oven.id)
    .where("bake.pulled_at", "is", null)
    .where("record.happened_at", "<=", at)
    .where("record.happened_at", ">", new Date(at.getTime() - 24 * 3_600_000))
    .where(sql<boolean>`not exists (select 1 from record s where s.supersedes = record.id)`)
    .orderBy("record.happened_at")
    .limit(1)
    .executeTakeFirst();
  if (!open) return { ok: false, failure: { kind: "nothing-in-oven", name: oven.code } };
  const details = (await readDetails(db, [open.id], tablesOfKind.bake)).get(open.id) ?? {};
  const outcome = await storeRecord(
    db,
    {
      id,
      kind: "bake",
      happenedAt: open.happened_at,
      by: person.username,
      grade: open.grade,
      idempotencyKey: `pull:${id}`,
      instrumentId: open.instrument_id,
      fileId: open.file_id,
      supersedes: { recordId: open.id, reason: "Pulled" },
      details: { ...details, bake: (details.bake ?? []).map((row) => ({ ...row, pulled_at: at })) },
    },
    at,
  );
  return outcome.kind === "stored" || outcome.kind === "already-stored"
    ? { ok: true, recordId: outcome.recordId, already: outcome.kind === "already-stored" }
    : { ok: false, failure: outcome };
}
