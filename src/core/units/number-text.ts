import { err, ok, type Result } from "../result";

export type DecimalMark = "." | ",";

/**
 * Reads a typed or filed number under a stated decimal mark; the other mark is a thousands separator only
 * where it stands before groups of exactly three digits.
 * Failures: `empty`, `not-a-number`, `ambiguous-number` ("1,233" with no stated mark could be 1.233 or 1233).
 * @example parseNumber("1,233", ".") // → 1233
 */
export function parseNumber(text: string, decimalMark: DecimalMark | null = null): Result<number> {
  const trimmed = text.trim().replace(/\u2212/g, "-");
  if (trimmed === "") return err({ kind: "empty", text });
  if (!/^[+-]?[\d.,]*\d[\d.,]*(?:[eE][+-]?\d+)?$/.test(trimmed)) return err({ kind: "not-a-number", text });
  const commas = (trimmed.match(/,/g) ?? []).length;
  const points = (trimmed.match(/\./g) ?? []).length;
  const mark = decimalMark ?? impliedMark(trimmed, commas, points);
  if (mark === null)
    return err({ kind: "ambiguous-number", text, readAs: [trimmed.replace(",", "."), trimmed.replace(",", "")] });
  const other = mark === "." ? "," : ".";
  const [whole = "", ...rest] = trimmed.split(mark);
  if (rest.length > 1 || rest.some((part) => part.includes(other))) return err({ kind: "not-a-number", text });
  if (whole.includes(other) && !new RegExp(`^[+-]?\\d{1,3}(\\${other}\\d{3})+$`).test(whole))
    return err({ kind: "not-a-number", text });
  const value = Number([whole.split(other).join(""), ...rest].join("."));
  return Number.isFinite(value) ? ok(value) : err({ kind: "not-a-number", text });
}

function impliedMark(text: string, commas: number, points: number): DecimalMark | null {
  if (commas === 0) return ".";
  if (points > 0) return text.lastIndexOf(",") > text.lastIndexOf(".") ? "," : ".";
  if (commas > 1) return ".";
  // Nobody writes a thousand as 0,125: a leading zero tells.
  return /^[+-]?[1-9]\d{0,2},\d{3}$/.test(text) ? null : ",";
}
