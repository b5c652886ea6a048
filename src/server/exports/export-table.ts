import "server-only";
import { type Kysely, sql } from "kysely";
import Papa from "papaparse";
import { detailTables, kinds } from "@/core/kinds";
import { localMs } from "@/core/shifts";
import { forPerson } from "@/db/queries/for-person";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { readDetails } from "../record/read-details";
import type { Person } from "../sign-in/roles";

/** How a spreadsheet of this shop reads: decimals, and what stands between cells. */
export type CsvStyle = { readonly decimalMark: "." | ","; readonly timeZone: string };
const separatorOf = ({ decimalMark }: CsvStyle) => (decimalMark === "," ? ";" : ",");

/** A moment by the shop's clock, as a spreadsheet takes it. */
export const localCell = (at: Date, timeZone: string): string =>
  new Date(localMs(at.getTime(), timeZone)).toISOString().slice(0, 19).replace("T", " ");
/** How far the shop's clock is from UTC at a moment: UTC+01:00. */
export function offsetCell(at: Date, timeZone: string): string {
  const minutes = Math.round((localMs(at.getTime(), timeZone) - at.getTime()) / 60_000);
  const two = (n: number) => String(n).padStart(2, "0");
  return `UTC${minutes < 0 ? "-" : "+"}${two(Math.floor(Math.abs(minutes) / 60))}:${two(Math.abs(minutes) % 60)}`;
}
/** A cell as it stands in the file: numbers by the shop's mark; words that a spreadsheet would run as a formula as text. */
export function csvCell(value: unknown, style: CsvStyle): string {
  if (value === null || value === undefined) return "";
  if (value instanceof Date) return localCell(value, style.timeZone);
  if (typeof value === "number") return style.decimalMark === "," ? String(value).replace(".", ",") : String(value);
  if (typeof value === "object") return JSON.stringify(value);
  const text = String(value);
  return /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
}
export const csvLines = (rows: readonly (readonly unknown[])[], style: CsvStyle): string =>
  rows.length === 0
    ? ""
    : `${Papa.unparse(
        rows.map((row) => row.map((cell) => csvCell(cell, style))),
        { delimiter: separatorOf(style), newline: "\r\n" },
      )}\r\n`;

/** Tables that can leave as CSV, each with the kind of record it is of. */
export const exportTables = (): readonly { readonly table: string; readonly kind: string }[] =>
  kinds().flatMap((k) => Object.keys(k.tables).map((table) => ({ table, kind: k.kind })));

const PAGE = 1000;
type Head = {
  id: string;
  happened_at: Date;
  stored_at: Date;
  by: string | null;
  grade: string;
  rack: string | null;
  job: string | null;
  bath: string | null;
  structure: string | null;
  reason: string | null;
  stands: boolean;
};
const headColumns = [
  "when",
  "utc_offset",
  "stored",
  "by",
  "grade",
  "rack",
  "job",
  "bath",
  "structure",
  "stands",
  "follows_because",
  "record_id",
];

/**
 * Every record of a table as CSV, in the order it happened, a page at a time: what each is of by name, moments by the
 * shop's clock. What was corrected stays in it and says so. Columns of samples have a row for each. Undefined for a table
 * that is none. Memory O(page).
 */
export async function* exportTable(
  db: Kysely<Database>,
  person: Person,
  table: string,
  { from, to, style }: { readonly from: Date; readonly to: Date; readonly style: CsvStyle },
): AsyncGenerator<string> {
  const columns = detailTables[table];
  if (!columns) return;
  const writers = kinds().filter((k) => table in k.tables || k.also?.includes(table));
  const names = Object.keys(columns).filter((c) => c !== "record_id");
  const samples = names.filter((c) => columns[c]?.startsWith("float8[]"));
  const codes = await codesOf(db);
  const heading = (name: string) => {
    const plain = name.replace(/_id$/, "");
    return headColumns.includes(plain) ? `${table}_${plain}` : plain;
  };
  yield csvLines([[...headColumns, ...names.map(heading)]], style);
  let after: { at: Date; id: string } | null = null;
  for (;;) {
    const { rows }: { rows: Head[] } = await sql<Head>`
      select r.id, r.happened_at, r.stored_at, ${personName("r.by_user")} as by, r.grade, k.number as rack, coalesce(j.number, kj.number) as job, b.code as bath,
        s.code as structure, r.reason, ${stands("r.id")} as stands
      from record r left join rack k on k.id = r.rack_id left join job kj on kj.id = k.job_id left join job j on j.id = r.job_id
        left join setup_entity b on b.id = r.bath_id left join structure s on s.id = r.structure_id
      where r.kind in (${sql.join(writers.map((w) => w.kind))}) and r.happened_at >= ${from} and r.happened_at < ${to}
        and ${forPerson(person, "s.customer_id", "j.customer_id", "kj.customer_id")}
        and ${after === null ? sql<boolean>`true` : sql<boolean>`(r.happened_at, r.id) > (${after.at}, ${after.id}::uuid)`}
      order by r.happened_at, r.id limit ${PAGE}`.execute(db);
    const last = rows.at(-1);
    if (!last) return;
    after = { at: last.happened_at, id: last.id };
    const details = await readDetails(
      db,
      rows.map((r) => r.id),
      [table],
    );
    const out: unknown[][] = [];
    for (const r of rows) {
      const head = [
        r.happened_at,
        offsetCell(r.happened_at, style.timeZone),
        r.stored_at,
        r.by,
        r.grade,
        r.rack,
        r.job,
        r.bath,
        r.structure,
        r.stands ? "yes" : "no, corrected later",
        r.reason,
        r.id,
      ];
      const own = ((details.get(r.id) ?? {}) as Record<string, Record<string, unknown>[]>)[table] ?? [];
      for (const row of own) {
        const cell = (name: string, at: number | null) => {
          const value = row[name];
          if (at !== null && samples.includes(name)) return (value as unknown[] | null)?.[at] ?? null;
          return typeof value === "string" && columns[name]?.startsWith("uuid") ? (codes.get(value) ?? value) : value;
        };
        const longest = Math.max(0, ...samples.map((n) => (row[n] as unknown[] | null)?.length ?? 0));
        if (samples.length === 0) out.push([...head, ...names.map((n) => cell(n, null))]);
        else for (let i = 0; i < longest; i++) out.push([...head, ...names.map((n) => cell(n, i))]);
      }
    }
    yield csvLines(out, style);
    if (rows.length < PAGE) return;
  }
}

/** What is set up by its code, racks by their number, for the ids that stand in records. Two queries; O(set-ups + racks). */
async function codesOf(db: Kysely<Database>): Promise<ReadonlyMap<string, string>> {
  const [entities, racks] = await Promise.all([
    db.selectFrom("setup_entity").select(["id", "code"]).execute(),
    db.selectFrom("rack").select(["id", "number"]).execute(),
  ]);
  return new Map([...entities.map((e) => [e.id, e.code] as const), ...racks.map((r) => [r.id, r.number] as const)]);
}
