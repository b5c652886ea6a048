import { err, ok, type Result } from "../result";
import { fahrenheitToC } from "../units";
import type { BathParameter } from "./bath-window";

/** One line of a pH and conductivity meter: `pH 5.31  47.2 C  66 uS/cm 25C`. */
export type MeterReading = Readonly<Partial<Record<BathParameter, number>>> & {
  /** The meter brought the conductivity to 25 °C itself: it must not be done again. */
  readonly compensated: boolean;
};

/** A figure as meters write it: a decimal point or comma, thousands parted by a space (any kind) in groups of three. */
const figure = String.raw`(-?\d{1,3}(?:[ \u00a0\u202f]\d{3})+(?:[.,]\d+)?|-?\d+(?:[.,]\d+)?)`;
const read = (text: string): number => Number(text.replace(/[ \u00a0\u202f]/g, "").replace(",", "."));

/**
 * Reads a line of the meter into canonical units. Conductivity in µS or mS; a `25C` after it says that the meter has
 * compensated. Every figure is read whole or the line is refused: what is left over may hold no digit. Failures: `empty`,
 * `not-a-meter-line` (the text).
 */
export function parseMeterLine(line: string): Result<MeterReading> {
  const text = line.trim();
  if (text === "") return err({ kind: "empty" });
  const refused = err({ kind: "not-a-meter-line", text: text.slice(0, 60) });
  let rest = text;
  const take = (pattern: string): RegExpExecArray | null => {
    const found = new RegExp(pattern, "iu").exec(rest);
    if (found) rest = `${rest.slice(0, found.index)} ; ${rest.slice(found.index + found[0].length)}`;
    return found;
  };
  // A figure begins where no digit, point or comma stands before it: nothing of a longer one is cut off.
  const begin = String.raw`(?<![\d.,])`;
  const ph = take(String.raw`\bpH\s*[:=]?\s*${figure}(?![\d.,])`);
  const conductivity = take(String.raw`${begin}${figure}\s*(u|µ|μ|m)S(?:/cm)?(\s*25\s*°?C)?`);
  const temperature = take(String.raw`${begin}${figure}\s*°?(C|F)\b`);
  if ((!ph && !conductivity && !temperature) || /\d/.test(rest)) return refused;
  const numbers = [ph, conductivity, temperature].map((m) => (m ? read(m[1] ?? "") : 0));
  if (numbers.some((n) => !Number.isFinite(n))) return refused;
  const [phValue = 0, conductivityValue = 0, temperatureValue = 0] = numbers;
  return ok({
    ...(ph && { ph: phValue }),
    ...(temperature && {
      temperature: temperature[2]?.toUpperCase() === "F" ? fahrenheitToC(temperatureValue) : temperatureValue,
    }),
    ...(conductivity && { conductivity: conductivityValue * (conductivity[2]?.toLowerCase() === "m" ? 1000 : 1) }),
    compensated: Boolean(conductivity?.[3]),
  });
}
