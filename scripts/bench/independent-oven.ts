// An oven that shares no equation with the predictor it holds to account: a burner with a thermostat, air, walls that store
// and radiate, a load that takes heat, places that differ, probes that lag. Forward steps of a second; no code of core/cure.
import type { Random } from "../../src/core/statistics";

/** Volume over heated area, m; heat per volume, J/(m³ K). */
const HEAT_PER_M3_K = 7850 * 490;
const STEFAN_BOLTZMANN = 5.67e-8;
const KELVIN = 273.15;

/** Where a piece hangs: more or less air past it than elsewhere, how much colder or hotter that air is, how it sees the walls. The same in every bake. */
export type OvenPlace = { readonly name: string; readonly air: number; readonly offC: number; readonly view: number };
export const drawPlaces = (random: Random, count: number): OvenPlace[] =>
  Array.from({ length: count }, (_, i) => ({
    name: `P${i + 1}`,
    air: Math.exp(random.normal(0, 0.12)),
    offC: random.normal(0, 3),
    view: 0.85 * Math.exp(random.normal(0, 0.06)),
  }));
export type OvenPart = {
  readonly place: OvenPlace;
  readonly mm: number;
  readonly hollow: boolean;
  readonly areaM2: number;
  readonly count: number;
};
export type IndependentBake = {
  readonly timeS: readonly number[];
  /** As the recorder has it, a sample every fifteen seconds: through a probe that lags, in tenths. */
  readonly airC: readonly number[];
  readonly metalC: readonly (readonly number[])[];
};

/**
 * One bake of some parts, s to its end; the set point, °C. An oven and its places are what they are; from bake to bake the
 * air at the door, the walls' heat, the damper and how each piece hangs differ, and are drawn.
 */
export function independentBake(
  random: Random,
  parts: readonly OvenPart[],
  setC: number,
  lastS: number,
): IndependentBake {
  const draw = (spread: number) => Math.exp(random.normal(0, spread));
  const burnerW = 62_000;
  const airHeat = 42_000;
  const wall = { heat: 650_000, areaM2: 26, airW: 12, lossW: 0.9 };
  const convective = 13.5 * draw(0.02);
  const emissivity = 0.82;
  const startC = 20 + random.normal(0, 1.5);
  const load = parts.map((p) => ({
    ...p,
    t: startC,
    heatPerM2: HEAT_PER_M3_K * (p.hollow ? p.mm / 1000 : p.mm / 2000),
    air: convective * p.place.air * draw(0.03),
    offC: p.place.offC + random.normal(0, 0.5),
    view: p.place.view * draw(0.02),
    probe: startC,
  }));
  let air = 95 + random.normal(0, 8);
  let walls = 165 + random.normal(0, 4);
  let sensor = air;
  let airProbe = air;
  let on = true;
  const timeS: number[] = [];
  const airC: number[] = [];
  const metalC: number[][] = parts.map(() => []);
  for (let s = 0; s <= lastS; s++) {
    if (s % 15 === 0) {
      timeS.push(s);
      airC.push(Math.round(10 * (airProbe + random.normal(0, 0.3))) / 10);
      for (const [i, p] of load.entries()) metalC[i]?.push(Math.round(10 * (p.probe + random.normal(0, 0.3))) / 10);
    }
    if (sensor > setC + 2) on = false;
    if (sensor < setC - 2) on = true;
    let taken = wall.airW * wall.areaM2 * (air - walls) + 90 * (air - 22);
    let radiated = 0;
    for (const p of load) {
      const fromAir = p.air * (air + p.offC - p.t);
      const fromWalls = emissivity * p.view * STEFAN_BOLTZMANN * ((walls + KELVIN) ** 4 - (p.t + KELVIN) ** 4);
      taken += p.count * p.areaM2 * fromAir;
      radiated += p.count * p.areaM2 * fromWalls;
      p.t += (fromAir + fromWalls) / p.heatPerM2;
      p.probe += (p.t - p.probe) / 12;
    }
    walls += (wall.airW * wall.areaM2 * (air - walls) - radiated - wall.lossW * wall.areaM2 * (walls - 22)) / wall.heat;
    air += ((on ? burnerW : 0) - taken) / airHeat;
    sensor += (air - sensor) / 25;
    airProbe += (air - airProbe) / 10;
  }
  return { timeS, airC, metalC };
}
