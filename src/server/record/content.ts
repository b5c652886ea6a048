import type { DetailTable, NewDetail } from "@/db/detail-tables";
import { detailTables } from "@/db/detail-tables";
import type { RecordTable } from "@/db/schema";
import { canonicalText, sha256 } from "./canonical";

/** The base columns that belong to a record's content. */
const contentColumns = [
  "id",
  "kind",
  "happened_at",
  "stored_at",
  "by_user",
  "grade",
  "instrument_id",
  "job_id",
  "rack_id",
  "piece_id",
  "bath_id",
  "bake_id",
  "structure_id",
  "case_id",
  "file_id",
  "idempotency_key",
  "request_hash",
  "supersedes",
  "reason",
] as const satisfies readonly (keyof RecordTable)[];

export type DetailRows = { readonly [T in DetailTable]?: readonly NewDetail<T>[] };

/** Hash of everything a record says: base row and detail rows, in the order of their ordinals or keys. */
export function contentHash(base: Omit<RecordTable, "content_hash">, details: DetailRows): string {
  const head = Object.fromEntries(contentColumns.map((column) => [column, base[column]]));
  const parts: string[] = [canonicalText(head)];
  for (const table of Object.keys(detailTables).sort() as DetailTable[]) {
    const rows = details[table];
    if (!rows?.length) continue;
    const texts = rows.map((row) => canonicalText(pick(table, row))).sort();
    parts.push(`${table}:${sha256(texts.join("\n"))}`);
  }
  return sha256(parts.join("\n"));
}

function pick(table: DetailTable, row: object): Record<string, unknown> {
  const values = row as Record<string, unknown>;
  return Object.fromEntries(Object.keys(detailTables[table]).map((column) => [column, values[column]]));
}
