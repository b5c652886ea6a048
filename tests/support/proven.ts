import { person, type TestDatabase } from "./database";
import { coatedRack, seatFilm, stored } from "./entries";

const inspector = person("inspector", "tomasz");
const operator = person("operator", "maren");

/** A ferry seat with everything its route and job ask for, and all of it in; hung 400 minutes ago. */
export async function provenRack(
  t: TestDatabase,
  rack: string,
  ago: (minutes: number) => Date,
  asked: object = {},
  { cut = true } = {},
): Promise<void> {
  const step = (name: string, minutes: number, value: number | null) =>
    stored(t, operator, ago(minutes), { kind: "prep-step", rack, step: name, done: true, value, note: "" });
  await coatedRack(t, rack, { at: ago(400), asked });
  for (const [name, value] of [
    ["degrease", null],
    ["blast", 45],
    ["dust-tape", 1],
    ["look-over", 0],
    ["break-edges", null],
    ["blow-off", null],
    ["solvent-wipe", null],
    ["soluble-salt", 5],
    ["water-break", 40],
  ] as const)
    await step(name, 399, value);
  const timeS = Array.from({ length: 181 }, (_, i) => i * 10);
  await stored(t, inspector, ago(300), {
    kind: "trace",
    rack,
    oven: "oven 1",
    place: "B2",
    loadNo: `S-${rack}`,
    channels: [{ name: "Leg", medium: "metal", timeS, tempC: timeS.map((s) => Math.min(192, 20 + s * 0.6)) }],
  });
  await stored(t, inspector, ago(200), {
    kind: "thickness",
    rack,
    source: "typed",
    typedUnit: "um",
    coatNo: 1,
    sure: true,
    readings: seatFilm(76),
  });
  if (cut) await stored(t, inspector, ago(190), { ...goodCut, rack });
}
/** A cross-cut of which nothing came off. */
export const goodCut = { kind: "cross-cut", squaresLost: 0, squares: 25, spacingMm: 2, onPanel: true };

/** A customer's word for a concession, with nothing unusual about it. */
export const theirWord = {
  concession: { customerName: "Their buyer", theirWord: "taken so, in writing", zone: "", limit: "", until: null },
};
