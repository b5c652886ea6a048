import Papa from "papaparse";
import { err, ok, type Result } from "../result";
import { parseNumber } from "../units";

export type LotLine = {
  readonly powder: string;
  readonly lot: string;
  readonly madeOn: string;
  readonly receivedOn: string;
  readonly stockKg: number | null;
};
/** Headings as shops write them. */
const headings: Readonly<Record<string, keyof LotLine>> = {
  powder: "powder",
  code: "powder",
  product: "powder",
  lot: "lot",
  batch: "lot",
  made: "madeOn",
  "made on": "madeOn",
  produced: "madeOn",
  received: "receivedOn",
  "received on": "receivedOn",
  kg: "stockKg",
  stock: "stockKg",
  "stock kg": "stockKg",
};
const MOST_LINES = 500;

/**
 * A date as it is written: 2026-03-02, 02.03.2026 with the day first, or 25/3/2026. With strokes the day and the month are
 * told apart only where one is over twelve, or both are the same. Failures: `not-a-date` (text), `date-of-two` (text and both).
 */
export function readDay(text: string): Result<string> {
  const none = err({ kind: "not-a-date", text: text.trim() });
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text.trim());
  const dotted = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(text.trim());
  const stroked = /^(\d{1,2})\/(\d{1,2})\/(\d{4})$/.exec(text.trim());
  if (iso) return realDay(iso[1], iso[2], iso[3]) ?? none;
  if (dotted) return realDay(dotted[3], dotted[2], dotted[1]) ?? none;
  if (!stroked) return none;
  const [dayFirst, monthFirst] = [
    realDay(stroked[3], stroked[2], stroked[1]),
    realDay(stroked[3], stroked[1], stroked[2]),
  ];
  if (dayFirst?.ok && monthFirst?.ok && dayFirst.value !== monthFirst.value)
    return err({ kind: "date-of-two", text: text.trim(), dayFirst: dayFirst.value, monthFirst: monthFirst.value });
  return dayFirst ?? monthFirst ?? none;
}

/** A day that the calendar has; null for any other. */
function realDay(y = "", m = "", d = ""): Result<string> | null {
  const day = `${y}-${m.padStart(2, "0")}-${d.padStart(2, "0")}`;
  const at = new Date(`${day}T00:00:00Z`);
  return Number.isNaN(at.getTime()) || at.toISOString().slice(0, 10) !== day ? null : ok(day);
}

/**
 * Lots as a table with headings: powder, lot, made, received, kg; comma, semicolon or tab. Received left out is today.
 * Failures, each with the line: `empty`, `no-heading` (what is missing), `unknown-heading`, `line-without` (what),
 * those of `readDay`, those of `parseNumber`, `too-many-lines`.
 */
export function readLotLines(text: string, today: string): Result<readonly LotLine[]> {
  const table = Papa.parse<string[]>(text.trim(), { skipEmptyLines: "greedy" }).data;
  const [head, ...rows] = table;
  if (!head || rows.length === 0) return err({ kind: "empty" });
  if (rows.length > MOST_LINES) return err({ kind: "too-many-lines", got: rows.length, most: MOST_LINES });
  const columns = head.map((h) => headings[h.trim().toLowerCase()] ?? null);
  const stray = columns.indexOf(null);
  if (stray >= 0) return err({ kind: "unknown-heading", heading: head[stray] ?? "" });
  for (const needed of ["powder", "lot", "madeOn"] as const)
    if (!columns.includes(needed)) return err({ kind: "no-heading", what: needed });
  const lines: LotLine[] = [];
  for (const [i, row] of rows.entries()) {
    const line = i + 2;
    const cell = (column: keyof LotLine) => row[columns.indexOf(column)]?.trim() ?? "";
    for (const needed of ["powder", "lot", "madeOn"] as const)
      if (cell(needed) === "") return err({ kind: "line-without", what: needed, line });
    const made = readDay(cell("madeOn"));
    if (!made.ok) return err({ ...made.error, line });
    const received = cell("receivedOn") === "" ? ok(today) : readDay(cell("receivedOn"));
    if (!received.ok) return err({ ...received.error, line });
    const kg = cell("stockKg");
    const stock = kg === "" ? null : parseNumber(kg);
    if (stock && !stock.ok) return err({ ...stock.error, line });
    lines.push({
      powder: cell("powder"),
      lot: cell("lot"),
      madeOn: made.value,
      receivedOn: received.value,
      stockKg: stock ? stock.value : null,
    });
  }
  return ok(lines);
}
