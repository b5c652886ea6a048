// Forecasts held to account on baths that do not do what the forecaster assumes: noise that runs together, rates that
// wander, curves, and use that goes with the work. A new reading at the check-by time should lie beyond the limit in
// 5 ± 3 %, without the cap of the fixed round, and the time used be at least a quarter of what was truly safe.
import { cautiousForecast, forecastLimit } from "../../src/core/bath";
import { type Random, seededRandom } from "../../src/core/statistics";

/** A bath: its true value at each tenth of an hour, and what a check reads there. */
type Process = { readonly truth: (hour: number) => number; readonly read: (hour: number) => number };
const STEP = 0.1;
const LONGEST_H = 400;

function walk(next: (step: number, before: number) => number, start: number): (hour: number) => number {
  const path = [start];
  for (let i = 1; i <= LONGEST_H / STEP; i++) path.push(next(i, path[i - 1] as number));
  return (hour) => path[Math.min(path.length - 1, Math.round(hour / STEP))] as number;
}
const plainNoise = (r: Random, sd: number) => () => r.normal(0, sd);
/** Noise with a memory of some hours, which the meter's own comes on top of. */
function slowNoise(r: Random, sd: number): (hour: number) => number {
  const keep = Math.exp(-STEP / 5);
  const drift = walk((_, before) => keep * before + r.normal(0, sd * Math.sqrt(1 - keep ** 2)), r.normal(0, sd));
  return (hour) => drift(hour) + r.normal(0, sd / 3);
}

const processes: Record<string, (r: Random, rate: number, noise: number) => Process> = {
  "straight, plain noise": (r, rate, noise) => {
    const truth = (h: number) => 5 + rate * h;
    const n = plainNoise(r, noise);
    return { truth, read: (h) => truth(h) + n() };
  },
  "noise that runs together": (r, rate, noise) => {
    const truth = (h: number) => 5 + rate * h;
    const n = slowNoise(r, noise);
    return { truth, read: (h) => truth(h) + n(h) };
  },
  "a rate that wanders": (r, rate, noise) => {
    const keep = Math.exp(-STEP / 40);
    const pace = walk((_, b) => rate + keep * (b - rate) + r.normal(0, 0.4 * rate * Math.sqrt(1 - keep ** 2)), rate);
    const truth = walk((i, b) => b + STEP * pace(i * STEP), 5);
    const n = plainNoise(r, noise);
    return { truth, read: (h) => truth(h) + n() };
  },
  "a curve that flattens": (r, rate, noise) => {
    const tau = 60 + 120 * r.uniform();
    const truth = (h: number) => 5 + rate * tau * (1 - Math.exp(-h / tau));
    const n = plainNoise(r, noise);
    return { truth, read: (h) => truth(h) + n() };
  },
  "a curve that steepens": (r, rate, noise) => {
    const tau = 120 + 120 * r.uniform();
    const truth = (h: number) => 5 + rate * (h + h ** 2 / (2 * tau));
    const n = plainNoise(r, noise);
    return { truth, read: (h) => truth(h) + n() };
  },
  "use that goes with the work": (r, rate, noise) => {
    // Two shifts of work and a night without; some days are fuller than others.
    const day = walk((i, b) => (i % 240 === 0 ? 0.6 + 0.8 * r.uniform() : b), 1);
    const truth = walk((i, b) => b + ((i * STEP) % 24 < 16 ? 1.4 : 0.1) * day(i * STEP) * rate * STEP, 5);
    const n = plainNoise(r, noise);
    return { truth, read: (h) => truth(h) + n() };
  },
};

const BATHS = 1500;
const CHECK_EVERY_H = 4;
/** As a titration or a meter of the shop repeats. */
const REPEATS = 0.02;
const median = (of: readonly number[]) => [...of].sort((a, b) => a - b)[Math.floor(of.length / 2)] ?? Number.NaN;

for (const [name, make] of Object.entries(processes)) {
  const random = seededRandom(20261129);
  const of = {
    cautious: { beyond: 0, tried: 0, used: [] as number[] },
    plain: { beyond: 0, tried: 0, used: [] as number[] },
  };
  for (let i = 0; i < BATHS; i++) {
    const rate = 0.004 + 0.016 * random.uniform();
    const bath = make(random, rate, 0.015 + 0.03 * random.uniform());
    const n = 6 + Math.floor(9 * random.uniform());
    const hours = Array.from({ length: n }, (_, k) => k * CHECK_EVERY_H);
    const values = hours.map((h) => bath.read(h));
    const last = (n - 1) * CHECK_EVERY_H;
    const limit = bath.truth(last) + rate * (6 + 60 * random.uniform());
    let safe = last;
    while (safe < LONGEST_H && bath.truth(safe) < limit) safe += STEP;
    for (const [which, found] of [
      ["cautious", cautiousForecast(hours, values, limit, "upper", REPEATS)],
      ["plain", forecastLimit(hours, values, limit, "upper")],
    ] as const) {
      if (!found.ok || found.value.forecast.kind !== "forecast") continue;
      const { checkByHour } = found.value.forecast;
      of[which].used.push((checkByHour - last) / (safe - last));
      if (checkByHour <= last || checkByHour > LONGEST_H) continue;
      of[which].tried++;
      if (bath.read(checkByHour) > limit) of[which].beyond++;
    }
  }
  const said = (w: (typeof of)["plain"]) =>
    `${((100 * w.beyond) / w.tried).toFixed(1)} % beyond, ${median(w.used).toFixed(2)} of the safe time used`;
  console.log(`  ${name}: ${said(of.cautious)} (of ${of.cautious.tried}; the plain line ${said(of.plain)})`);
}
