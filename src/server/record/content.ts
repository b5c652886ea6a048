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

const tableNames = (Object.keys(detailTables) as DetailTable[]).sort();
/** Columns in the order of their canonical text, with the key already written. */
const columnsOf = Object.fromEntries(
  tableNames.map((table) => [
    table,
    Object.keys(detailTables[table])
      .sort()
      .map((column) => ({ column, key: `${JSON.stringify(column)}:` })),
  ]),
) as Record<DetailTable, { column: string; key: string }[]>;

/** The canonical text of a detail row, the same as canonicalText gives of its known columns; written out since a set can hold 100,000 rows. */
function rowText(table: DetailTable, row: object): string {
  const values = row as Record<string, unknown>;
  let text = "";
  for (const { column, key } of columnsOf[table]) {
    const value = values[column];
    if (value === null || value === undefined) continue;
    const said = typeof value === "number" && Number.isFinite(value) ? String(value) : canonicalText(value);
    text += text === "" ? key + said : `,${key}${said}`;
  }
  return `{${text}}`;
}

/** One line per detail table: its name and the hash of its rows, in the order of their ordinals, or of their text where they have none. O(rows). */
export function detailsDigest(details: DetailRows): string {
  const parts: string[] = [];
  for (const table of tableNames) {
    const rows = details[table] as readonly { ordinal?: number }[] | undefined;
    if (!rows?.length) continue;
    const ordered = "ordinal" in detailTables[table];
    const inOrder = ordered && rows.every((row, i) => i === 0 || (rows[i - 1]?.ordinal ?? 0) < (row.ordinal ?? 0));
    const sorted = ordered && !inOrder ? [...rows].sort((a, b) => (a.ordinal ?? 0) - (b.ordinal ?? 0)) : rows;
    const texts = sorted.map((row) => rowText(table, row));
    if (!ordered) texts.sort();
    parts.push(`${table}:${sha256(texts.join("\n"))}`);
  }
  return parts.join("\n");
}

/** Hash of everything a record says: base row and detail rows. */
export function contentHash(
  base: Omit<RecordTable, "content_hash">,
  details: DetailRows | { readonly digest: string },
): string {
  const head = Object.fromEntries(contentColumns.map((column) => [column, base[column]]));
  return sha256(`${canonicalText(head)}\n${"digest" in details ? details.digest : detailsDigest(details)}`);
}
