import { createHash } from "node:crypto";
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
  "in_course",
] as const satisfies readonly (keyof RecordTable)[];

export type DetailRows = { readonly [T in DetailTable]?: readonly NewDetail<T>[] };

/** Columns in the order of their canonical text, with the key already written; worked out once for each table. */
const columnsOf = (table: DetailTable): readonly { column: string; key: string }[] => {
  let columns = known.get(table);
  if (!columns) {
    columns = Object.keys(detailTables[table])
      .sort()
      .map((column) => ({ column, key: `${JSON.stringify(column)}:` }));
    known.set(table, columns);
  }
  return columns;
};
const known = new Map<string, readonly { column: string; key: string }[]>();

/** Strings repeat (faces, spots, typed values), so each is quoted once per digest. */
type Quoted = Map<string, string>;
/** Past this many different strings remembering them costs more than quoting them again. */
const MOST_QUOTED = 10_000;

/** The canonical text of a detail row, the same as canonicalText gives of its known columns; written out since a set can hold 100,000 rows. */
function rowText(table: DetailTable, row: object, quoted: Quoted): string {
  const values = row as Record<string, unknown>;
  let text = "";
  for (const { column, key } of columnsOf(table)) {
    const value = values[column];
    if (value === null || value === undefined) continue;
    let said: string;
    if (typeof value === "number" && Number.isFinite(value)) said = String(value);
    else if (typeof value === "string") {
      const known = quoted.get(value);
      said = known ?? JSON.stringify(value);
      if (known === undefined && quoted.size < MOST_QUOTED) quoted.set(value, said);
    } else said = canonicalText(value);
    text += text === "" ? key + said : `,${key}${said}`;
  }
  return `{${text}}`;
}

/** One line per detail table: its name and the hash of its rows, in the order of their ordinals, or of their text where they have none. O(rows). */
export function detailsDigest(details: DetailRows): string {
  const parts: string[] = [];
  const quoted: Quoted = new Map();
  for (const table of (Object.keys(details) as DetailTable[]).sort()) {
    const rows = details[table] as readonly { ordinal?: number }[] | undefined;
    if (!rows?.length) continue;
    parts.push(
      `${table}:${
        "ordinal" in detailTables[table]
          ? orderedDigest(table, rows, quoted)
          : sha256(
              rows
                .map((row) => rowText(table, row, quoted))
                .sort()
                .join("\n"),
            )
      }`,
    );
  }
  return parts.join("\n");
}

/** The digest of ordered rows of one table, a row at a time in the order of their ordinals: for more rows than are ever held. */
export class RowsDigest {
  private readonly hash = createHash("sha256");
  private rows = 0;
  constructor(
    private readonly table: DetailTable,
    private readonly quoted: Map<string, string>,
  ) {}
  add(row: object): void {
    this.hash.update((this.rows++ > 0 ? "\n" : "") + rowText(this.table, row, this.quoted));
  }
  /** The line of `detailsDigest` for this table. */
  line(): string {
    return `${this.table}:${this.hash.digest("hex")}`;
  }
}

/** Rows hashed as they come, a few thousand at a time, so that no text of the whole set is ever held. */
function orderedDigest(table: DetailTable, rows: readonly { ordinal?: number }[], quoted: Quoted): string {
  const inOrder = rows.every((row, i) => i === 0 || (rows[i - 1]?.ordinal ?? 0) < (row.ordinal ?? 0));
  const sorted = inOrder ? rows : [...rows].sort((a, b) => (a.ordinal ?? 0) - (b.ordinal ?? 0));
  const hash = createHash("sha256");
  let chunk = "";
  for (let i = 0; i < sorted.length; i++) {
    chunk += (i > 0 ? "\n" : "") + rowText(table, sorted[i] as object, quoted);
    if (i % 4000 === 3999) {
      hash.update(chunk);
      chunk = "";
    }
  }
  return hash.update(chunk).digest("hex");
}

/** Hash of everything a record says: base row and detail rows. */
export function contentHash(
  base: Omit<RecordTable, "content_hash">,
  details: DetailRows | { readonly digest: string },
): string {
  const head = Object.fromEntries(contentColumns.map((column) => [column, base[column]]));
  return sha256(`${canonicalText(head)}\n${"digest" in details ? details.digest : detailsDigest(details)}`);
}
