import { err, ok, type Result } from "../result";
import type { Lab } from "./colour";

/** What a line of an instrument at the bench says: gloss at an angle, a colour, a pull. */
export type BenchReading =
  | { readonly kind: "gloss"; readonly angle: 20 | 60 | 85; readonly gu: number }
  | { readonly kind: "colour"; readonly lab: Lab }
  | { readonly kind: "pull"; readonly dollyMm: number; readonly forceN: number };

const figure = "(-?\\d+(?:[.,]\\d+)?)";
const number = (text: string | undefined): number => Number((text ?? "").replace(",", "."));
const gloss = new RegExp(`^(20|60|85)\\s*(?:°|deg)?\\s*[:=]?\\s*${figure}\\s*(?:GU)?$`, "i");
const colour = new RegExp(
  `^L\\*?\\s*[:=]?\\s*${figure}\\s*[;,]?\\s+a\\*?\\s*[:=]?\\s*${figure}\\s*[;,]?\\s+b\\*?\\s*[:=]?\\s*${figure}$`,
  "i",
);
const pull = new RegExp(`^d\\s*[:=]?\\s*${figure}\\s*mm\\s*[;,]?\\s+F\\s*[:=]?\\s*${figure}\\s*(N|kN)$`, "i");

/**
 * A line of a gloss meter (“60 91.4 GU”), a colour meter (“L 41.20 a -1.03 b -12.11”) or a pull-off tester (“d 20 mm F 1885 N”),
 * read whole or refused. Failure: `not-a-reading` with the line.
 */
export function readBenchLine(line: string): Result<BenchReading> {
  const text = line.trim();
  const g = gloss.exec(text);
  if (g) return ok({ kind: "gloss", angle: Number(g[1]) as 20 | 60 | 85, gu: number(g[2]) });
  const c = colour.exec(text);
  if (c) return ok({ kind: "colour", lab: [number(c[1]), number(c[2]), number(c[3])] });
  const p = pull.exec(text);
  if (p)
    return ok({
      kind: "pull",
      dollyMm: number(p[1]),
      forceN: number(p[2]) * (p[3]?.toLowerCase() === "kn" ? 1000 : 1),
    });
  return err({ kind: "not-a-reading", line: text.slice(0, 60) });
}
