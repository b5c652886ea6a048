import { createHash } from "node:crypto";
import type { Kysely } from "kysely";
import type { DetailTable } from "@/db/detail-tables";
import type { Database } from "@/db/schema";
import { insertDetails } from "@/server/record/insert-details";
import { baseRow, type NewRecord } from "@/server/record/store-record";

export const MINUTE = 60_000;
export const DAY = 86_400_000;
/** A stable UUID (version 7 layout, time first) from the moment and a name: the same demo has the same ids. */
export function demoId(ms: number, name: string): string {
  const time = Math.max(0, Math.floor(ms)).toString(16).padStart(12, "0");
  const rest = createHash("sha256").update(name).digest("hex");
  return `${time.slice(0, 8)}-${time.slice(8, 12)}-7${rest.slice(0, 3)}-a${rest.slice(3, 6)}-${rest.slice(6, 18)}`;
}

/** Finds the id of what the demo shop was set up with. */
export type Made = { readonly entity: (kind: string, code: string) => string };

/** A record of the demo, with an id and a key that are the same each time. */
export const record = (
  kind: string,
  atMs: number,
  name: string,
  rest: Omit<NewRecord, "id" | "kind" | "happenedAt" | "idempotencyKey">,
): NewRecord => ({
  id: demoId(atMs, `${kind}:${name}`),
  kind,
  happenedAt: new Date(atMs),
  idempotencyKey: `demo:${kind}:${name}:${atMs}`,
  ...rest,
});

/** Inserts many records at once; the demo's own records never clash, so no idempotency look-ups. */
export async function insertRecords(db: Kysely<Database>, records: readonly NewRecord[]): Promise<void> {
  const rows = records.map((r) => baseRow(r, new Date(r.happenedAt.getTime() + MINUTE)));
  for (let i = 0; i < rows.length; i += 1000)
    await db
      .insertInto("record")
      .values(rows.slice(i, i + 1000))
      .execute();
  const byTable = new Map<DetailTable, { record_id: string; values: object }[]>();
  for (const r of records)
    for (const [table, details] of Object.entries(r.details))
      for (const values of details) {
        const rowsOfTable = byTable.get(table as DetailTable) ?? [];
        rowsOfTable.push({ record_id: r.id, values });
        byTable.set(table as DetailTable, rowsOfTable);
      }
  for (const [table, details] of byTable) await insertDetails(db, table, details);
}
