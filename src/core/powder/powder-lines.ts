import Papa from "papaparse";
import { type Family, families } from "../plan/system";
import { err, ok, type Result } from "../result";
import { parseNumber } from "../units";

export type PowderLine = {
  readonly code: string;
  readonly name: string;
  readonly chemistry: string;
  readonly family: Family;
  readonly minUm: number;
  readonly maxUm: number;
  readonly specificGravity: number;
  readonly schedule: readonly { readonly metalC: number; readonly minutes: number }[];
  readonly shelfLifeDays: number;
  readonly pricePerKg: number | null;
};
/** Headings as makers and shops write them, without the unit in brackets. */
const headings: Readonly<Record<string, keyof PowderLine>> = {
  code: "code",
  powder: "code",
  number: "code",
  name: "name",
  colour: "name",
  color: "name",
  chemistry: "chemistry",
  family: "family",
  resin: "family",
  "film from": "minUm",
  min: "minUm",
  "min um": "minUm",
  "film to": "maxUm",
  max: "maxUm",
  "max um": "maxUm",
  "specific gravity": "specificGravity",
  sg: "specificGravity",
  density: "specificGravity",
  cure: "schedule",
  schedule: "schedule",
  shelf: "shelfLifeDays",
  "shelf life": "shelfLifeDays",
  "shelf days": "shelfLifeDays",
  price: "pricePerKg",
  "price per kg": "pricePerKg",
};
const needed = ["code", "name", "minUm", "maxUm", "specificGravity", "schedule"] as const;
const MOST_LINES = 500;
/** What a list that says nothing of it begins with: a year, as most sheets have it. */
const USUAL_SHELF_DAYS = 365;

/**
 * Powders as a table with headings: code, name, film from and to (µm), specific gravity, cure ("180 20, 190 15": metal °C
 * and minutes), and where they are known chemistry, family, shelf life (days), price. Comma, semicolon or tab.
 * Failures, each with the line: `empty`, `no-powder-heading` (what is missing), `unknown-powder-heading`,
 * `powder-line-without` (what), those of `parseNumber`, `not-a-cure`, `unknown-family`, `too-many-powders`, `powder-twice`.
 */
export function readPowderLines(text: string): Result<readonly PowderLine[]> {
  const parsed = Papa.parse<string[]>(text.trim(), { skipEmptyLines: "greedy" });
  const [head, ...rows] = parsed.data.map((row) => row.map((cell) => cell.trim()));
  if (!head || rows.length === 0) return err({ kind: "empty", text });
  if (rows.length > MOST_LINES) return err({ kind: "too-many-powders", most: MOST_LINES, got: rows.length });
  const columns: (keyof PowderLine)[] = [];
  for (const cell of head) {
    const plain = cell
      .toLowerCase()
      .replace(/[,(].*$/, "")
      .replace(/[µ_]/g, (c) => (c === "µ" ? "u" : " "))
      .trim();
    const column = headings[plain];
    if (!column) return err({ kind: "unknown-powder-heading", heading: cell });
    columns.push(column);
  }
  const missing = needed.filter((n) => !columns.includes(n));
  if (missing.length > 0) return err({ kind: "no-powder-heading", missing: missing.map((m) => words[m]) });
  const out: PowderLine[] = [];
  for (const [i, row] of rows.entries()) {
    const line = i + 2;
    const cell = (name: keyof PowderLine) => row[columns.indexOf(name)] ?? "";
    const empty = needed.find((n) => cell(n) === "");
    if (empty) return err({ kind: "powder-line-without", line, what: words[empty] });
    const numbers: Partial<Record<keyof PowderLine, number>> = {};
    for (const name of ["minUm", "maxUm", "specificGravity", "shelfLifeDays", "pricePerKg"] as const) {
      if (cell(name) === "") continue;
      const read = parseNumber(cell(name));
      if (!read.ok) return err({ ...read.error, line });
      numbers[name] = read.value;
    }
    const schedule = cell("schedule")
      .split(/[,;/]+/)
      .map((p) => /^\s*(\d+(?:\.\d+)?)\s*(?:°?C)?[\s:@x]+(\d+(?:\.\d+)?)\s*(?:min)?\s*$/i.exec(p));
    if (schedule.some((p) => p === null)) return err({ kind: "not-a-cure", line, text: cell("schedule") });
    const family = cell("family") === "" ? "polyester" : cell("family").toLowerCase().replace(/\s+/g, "-");
    if (!families.includes(family as Family))
      return err({ kind: "unknown-family", line, name: cell("family"), of: families });
    if (out.some((p) => p.code.toLowerCase() === cell("code").toLowerCase()))
      return err({ kind: "powder-twice", line, code: cell("code") });
    out.push({
      code: cell("code"),
      name: cell("name"),
      chemistry: cell("chemistry") || family,
      family: family as Family,
      minUm: numbers.minUm ?? 0,
      maxUm: numbers.maxUm ?? 0,
      specificGravity: numbers.specificGravity ?? 0,
      schedule: schedule.map((p) => ({ metalC: Number(p?.[1]), minutes: Number(p?.[2]) })),
      shelfLifeDays: numbers.shelfLifeDays ?? USUAL_SHELF_DAYS,
      pricePerKg: numbers.pricePerKg ?? null,
    });
  }
  return ok(out);
}
const words: Readonly<Record<(typeof needed)[number], string>> = {
  code: "code",
  name: "name",
  minUm: "film from, µm",
  maxUm: "film to, µm",
  specificGravity: "specific gravity",
  schedule: "cure",
};
