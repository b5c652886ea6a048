import Papa from "papaparse";
import type { Column, Row } from "./rows";

/** Saves the rows of a list as they are shown: a column each, in the units they are read in. */
export function saveCsv(name: string, columns: readonly Column[], rows: readonly Row[]): void {
  const named = columns.filter((c) => c.head);
  const text = Papa.unparse(
    { fields: named.map((c) => c.head), data: rows.map((r) => named.map((c) => r.values[c.key] ?? "")) },
    { escapeFormulae: true },
  );
  const url = URL.createObjectURL(new Blob(["\uFEFF", text], { type: "text/csv;charset=utf-8" }));
  Object.assign(document.createElement("a"), {
    href: url,
    download: `${name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, "-")}.csv`,
  }).click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
