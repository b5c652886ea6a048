import { err, ok, type Result } from "../result";
import { fahrenheitToC } from "../units";
import type { BathParameter } from "./bath-window";

/** One line of a pH and conductivity meter: `pH 5.31  47.2 C  66 uS/cm 25C`. */
export type MeterReading = Readonly<Partial<Record<BathParameter, number>>> & {
  /** The meter brought the conductivity to 25 °C itself: it must not be done again. */
  readonly compensated: boolean;
};

/**
 * Reads a line of the meter into canonical units. Conductivity in µS or mS; a `25C` after it says that the meter has
 * compensated. Failures: `empty`, `not-a-meter-line` (the text).
 */
export function parseMeterLine(line: string): Result<MeterReading> {
  const text = line.trim();
  if (text === "") return err({ kind: "empty" });
  const number = String.raw`(-?\d+(?:\.\d+)?)`;
  const ph = new RegExp(String.raw`\bpH\s*${number}`, "i").exec(text);
  const conductivity = new RegExp(String.raw`${number}\s*(u|µ|m)S(?:/cm)?(\s*25\s*°?C)?`, "i").exec(text);
  const rest = conductivity ? text.replace(conductivity[0], " ") : text;
  const temperature = new RegExp(String.raw`${number}\s*°?(C|F)\b`, "i").exec(rest);
  if (!ph && !conductivity && !temperature) return err({ kind: "not-a-meter-line", text: text.slice(0, 60) });
  return ok({
    ...(ph && { ph: Number(ph[1]) }),
    ...(temperature && {
      temperature:
        temperature[2]?.toUpperCase() === "F" ? fahrenheitToC(Number(temperature[1])) : Number(temperature[1]),
    }),
    ...(conductivity && {
      conductivity: Number(conductivity[1]) * (conductivity[2]?.toLowerCase() === "m" ? 1000 : 1),
    }),
    compensated: Boolean(conductivity?.[3]),
  });
}
