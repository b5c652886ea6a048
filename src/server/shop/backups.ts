import "server-only";
import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { daysWithoutBackup } from "@/core/site";
import type { Database } from "@/db/schema";
import { badEntry, said } from "../input";
import { refuse } from "../outcome";
import { type SetupSaved, saveSetup } from "../setup/save-setup";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";

export type BackupTaken = {
  readonly id: string;
  readonly at: Date;
  readonly file: string;
  readonly megabytes: number;
  readonly encrypted: boolean;
  readonly scheduled: boolean;
};
/** Backups that were taken, the newest first. */
export async function backupsTaken(db: Kysely<Database>, most = 60): Promise<readonly BackupTaken[]> {
  const rows = await db.selectFrom("backup_taken").selectAll().orderBy("taken_at", "desc").limit(most).execute();
  return rows.map((r) => ({
    id: r.id,
    at: r.taken_at,
    file: r.file,
    megabytes: Math.round(Number(r.size_bytes) / 1e5) / 10,
    encrypted: r.encrypted,
    scheduled: r.scheduled,
  }));
}

/** Days a shop of one's own has gone without a backup, where they are so many that it is to be said; null for the demo. Two index probes. */
export async function backupMissing(db: Kysely<Database>, at: Date): Promise<number | null> {
  const { rows } = await sql<{ last: Date | null; begun: Date | null }>`
    select (select max(taken_at) from backup_taken) as last,
      (select min(at) from person_event where what = 'made' and note = 'began the shop') as begun`.execute(db);
  const row = rows[0];
  return row?.begun ? daysWithoutBackup(row.last, row.begun, at) : null;
}

const schema = v.object({
  seen: v.pipe(v.string(), v.uuid("is not a version")),
  reason: said(300, "is too short: name why it changes"),
  everyHours: v.nullable(
    v.pipe(v.number("is not a number"), v.minValue(1, "is under 1"), v.maxValue(24 * 31, "is over a month")),
  ),
});
/** How often a backup is taken by itself while Sorrel runs; null for never. Failures: `bad-entry`, and those of saving what is set up. */
export async function saveBackupInterval(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(schema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { seen, reason, everyHours } = parsed.output;
  const data = { code: "site", seen, reason };
  return saveSetup(
    db,
    person,
    "site",
    { ...data, data: (site) => ({ ...site, backupEveryHours: everyHours }) },
    clock,
    {
      what: "shop",
    },
  );
}
