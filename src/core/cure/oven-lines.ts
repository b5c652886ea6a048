import { err, ok, type Result } from "../result";
import { parseNumber } from "../units";

export type OvenPlace = { readonly id: string; readonly at: readonly [number, number]; readonly note: string };
export type OvenZone = {
  readonly name: string;
  readonly heat: "infrared" | "convection";
  readonly lengthM: number;
  readonly airC: number;
  readonly hWPerM2K: number;
};

const linesOf = (text: string): { line: number; cells: string[] }[] =>
  text
    .split(/\r?\n/)
    .flatMap((raw, i) => (raw.trim() === "" ? [] : [{ line: i + 1, cells: raw.split(",").map((c) => c.trim()) }]));
const bad = (line: number, value: string | undefined, why: string) =>
  err({ kind: "bad-oven-line", line, value: value ?? "", why });

/**
 * Places of an oven, one a line: name, share of the width and of the depth as seen from the door (0–100), and a note if
 * any. Failure: `bad-oven-line` with line, value and why.
 * @example placesFromLines("A1, 14, 88, by the door") // ok([{ id: "A1", at: [14, 88], note: "by the door" }])
 */
export function placesFromLines(text: string): Result<readonly OvenPlace[]> {
  const places: OvenPlace[] = [];
  for (const { line, cells } of linesOf(text)) {
    const [id = "", across, deep, ...note] = cells;
    if (id === "" || id.length > 20) return bad(line, id, "is no name for a place");
    if (places.some((p) => p.id.toLowerCase() === id.toLowerCase())) return bad(line, id, "is there twice");
    const at: number[] = [];
    for (const cell of [across, deep]) {
      const read = parseNumber(cell ?? "");
      if (!read.ok || read.value < 0 || read.value > 100) return bad(line, cell, "is no share between 0 and 100");
      at.push(read.value);
    }
    places.push({ id, at: [at[0] as number, at[1] as number], note: note.join(", ") });
  }
  return ok(places);
}

/**
 * Zones of a conveyor oven in order of travel, one a line: name, infrared or convection, length m, air °C, heat transfer
 * W/(m² K). Failure: `bad-oven-line`.
 * @example zonesFromLines("gel, infrared, 3, 285, 42")
 */
export function zonesFromLines(text: string): Result<readonly OvenZone[]> {
  const zones: OvenZone[] = [];
  for (const { line, cells } of linesOf(text)) {
    const [name = "", heat, ...figures] = cells;
    if (name === "" || name.length > 40) return bad(line, name, "is no name for a zone");
    if (heat !== "infrared" && heat !== "convection") return bad(line, heat, "is neither infrared nor convection");
    const read = [figures[0], figures[1], figures[2]].map((f) => parseNumber(f ?? ""));
    const most = [200, 600, 500];
    const wrong = read.findIndex((r, i) => !r.ok || r.value <= 0 || r.value > (most[i] as number));
    if (wrong >= 0 || figures.length !== 3)
      return bad(
        line,
        figures[Math.max(0, wrong)],
        ["is no length in m (up to 200)", "is no air in °C (up to 600)", "is no heat transfer (up to 500)"][
          Math.max(0, wrong)
        ] as string,
      );
    const [lengthM, airC, hWPerM2K] = read.map((r) => (r.ok ? r.value : 0)) as [number, number, number];
    zones.push({ name, heat, lengthM, airC, hWPerM2K });
  }
  return ok(zones);
}

export const placeLines = (places: readonly OvenPlace[]): string =>
  places.map((p) => [p.id, ...p.at, ...(p.note ? [p.note] : [])].join(", ")).join("\n");
export const zoneLines = (zones: readonly OvenZone[]): string =>
  zones.map((z) => [z.name, z.heat, z.lengthM, z.airC, z.hWPerM2K].join(", ")).join("\n");
