import { err, ok, type Result } from "../result";
import { milToUm, parseNumber } from "../units";
import { checkThicknessUm } from "./readings";

export type GaugeReading = { readonly valueUm: number; readonly typed: string };

/**
 * One line of a film gauge: a number with its unit or without, as a stream, a keyboard or a download sends it
 * (`74.2 um`, `2.92 mil`, `#17 74,2 µm`, `74.2`). A counter before it is let go. Failures: `not-a-gauge-line` (text),
 * `beyond-any-film`, `negative`.
 */
export function readGaugeLine(line: string, unitWithout: "um" | "mil" = "um"): Result<GaugeReading> {
  const text = line.trim();
  const match = /^(?:#?\d+[:;]\s*|#\d+\s+)?([+-]?\d+(?:[.,]\d+)?)\s*(um|µm|μm|mils?)?$/i.exec(text);
  const digits = match?.[1];
  if (!digits) return err({ kind: "not-a-gauge-line", text: text.slice(0, 60) });
  const read = parseNumber(digits);
  if (!read.ok) return read;
  const unit = match?.[2]?.toLowerCase();
  const mil = unit ? unit.startsWith("mil") : unitWithout === "mil";
  const checked = checkThicknessUm(mil ? milToUm(read.value) : read.value);
  return checked.ok ? ok({ valueUm: checked.value, typed: text }) : checked;
}
