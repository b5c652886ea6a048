// The oven's model: foretold time to temperature on bakes it has not seen; a plan of 40 pieces; 600 bakes judged anew; a shift-long trace read and drawn thin.
import {
  fitTimeConstant,
  heatThrough,
  heatTransferOf,
  judgeBake,
  learnHeatTransfer,
  planLoad,
  plateTimeConstant,
  thinTrace,
  traceFaults,
} from "../../src/core/cure";
import { readOvenFile } from "../../src/core/instrument-files";
import { valueOrThrow } from "../../src/core/result";
import { seededRandom, simulateBake } from "../../src/core/simulated-line";

const random = seededRandom(42);
const schedule = {
  points: [
    { metalC: 180, minutes: 20 },
    { metalC: 190, minutes: 15 },
    { metalC: 200, minutes: 10 },
  ],
  overbake: [{ metalC: 200, minutes: 40 }],
};
const SECTIONS_MM = [1.5, 2, 3, 4, 5, 6, 8];
/** Bakes differ: hanging, draught and load move the heat transfer by so much, share. */
const BAKE_TO_BAKE = 0.02;
const H = 29;
type Bake = { mm: number; setPointC: number; channels: ReturnType<typeof simulateBake>; pullS: number };
const bake = (mm: number): Bake => {
  const { tauS } = valueOrThrow(
    plateTimeConstant({ material: "steel", plateMm: mm, hWPerM2K: H * Math.exp(random.normal(0, BAKE_TO_BAKE)) }),
  );
  const setPointC = 195 + 15 * random.uniform();
  const pullS = Math.round(900 + 4 * tauS);
  return {
    mm,
    setPointC,
    pullS,
    channels: simulateBake(random, {
      setPointC,
      pieces: [{ channel: "Probe", tauS }],
      doorToPullS: pullS,
      intervalS: 20,
      coolS: 300,
      startC: 19 + 4 * random.uniform(),
    }),
  };
};
const crossing = (timeS: readonly number[], tempC: readonly (number | null)[], c: number): number | null => {
  const i = tempC.findIndex((t) => (t ?? 0) >= c);
  if (i < 1) return null;
  const [a, b] = [tempC[i - 1] as number, tempC[i] as number];
  return (timeS[i - 1] as number) + ((c - a) / (b - a)) * ((timeS[i] as number) - (timeS[i - 1] as number));
};
const learnt = learnHeatTransfer(
  Array.from({ length: 40 }, (_, i) => {
    const b = bake(SECTIONS_MM[i % SECTIONS_MM.length] as number);
    const [air, metal] = b.channels;
    if (!air || !metal) throw new Error("no channels");
    const { tauS } = valueOrThrow(fitTimeConstant(air.trace, metal.trace, b.pullS));
    return valueOrThrow(heatTransferOf(tauS, "steel", b.mm));
  }),
);
const { hWPerM2K, band } = valueOrThrow(learnt);
let [within, compared] = [0, 0];
for (let i = 0; i < 400; i++) {
  const b = bake(SECTIONS_MM[i % SECTIONS_MM.length] as number);
  const metal = b.channels[1];
  const measured = metal ? crossing(metal.trace.timeS, metal.trace.tempC, 180) : null;
  const { tauS } = valueOrThrow(plateTimeConstant({ material: "steel", plateMm: b.mm, hWPerM2K }));
  const foretold = valueOrThrow(
    heatThrough(
      { startC: 60, tauS: 140, program: [{ fromS: 0, airC: b.setPointC }] },
      { tauS, startC: metal?.trace.tempC[0] ?? 21 },
      b.pullS,
      10,
    ),
  ).metal;
  const said = crossing(foretold.timeS, foretold.tempC, 180);
  if (measured === null || said === null) continue;
  compared++;
  if (Math.abs(said / measured - 1) <= 0.05) within++;
}
console.log(
  `  heat transfer learnt from 40 bakes: ${hWPerM2K.toFixed(1)} W/(m² K), next bake within ${band.map((x) => x.toFixed(1)).join("–")} (simulated with ${H})`,
);
console.log(
  `  time to 180 °C on ${compared} bakes not seen: within 5 % in ${((100 * within) / compared).toFixed(1)} %; asked: 90 %`,
);

const times = (n: number, run: () => void): number => {
  run();
  const spent = Array.from({ length: n }, () => {
    const start = performance.now();
    run();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  return spent[spent.length >> 1] as number;
};
const forty = Array.from({ length: 40 }, (_, i) => ({
  id: String(i),
  section: { metal: "steel" as const, sectionMm: 1 + (i % 8), hWPerM2K: 28 },
  schedule,
  startC: 20,
}));
const air = { startC: 60, tauS: 200, program: [{ fromS: 0, airC: 205 }] };
console.log(
  `  plan of 40 pieces: median ${times(9, () => void valueOrThrow(planLoad(air, forty, { holdToo: true }))).toFixed(0)} ms; asked: under 100 ms`,
);

const six = Array.from({ length: 6 }, (_, i) => {
  const [airChannel, metal] = bake(SECTIONS_MM[i] as number).channels;
  return i === 0 ? airChannel : metal && { ...metal, name: `Probe ${i}` };
}).flatMap((c) => (c ? [c] : []));
const long = Math.min(...six.map((c) => c.trace.timeS.length));
const channels = six.map((c) => ({
  ...c,
  trace: { timeS: c.trace.timeS.slice(0, long), tempC: c.trace.tempC.slice(0, long) },
}));
const start = performance.now();
for (let i = 0; i < 600; i++) valueOrThrow(judgeBake(channels, schedule));
console.log(
  `  600 bakes × 6 channels × ${long} samples judged anew: ${((performance.now() - start) / 1000).toFixed(2)} s; asked: under 3 s`,
);

const SHIFT_S = 8 * 3600;
const lines = Array.from({ length: SHIFT_S }, (_, s) => {
  // Smooth and in tenths, as a recorder writes it: long stretches stay at one number.
  const c = 200 - 178 * Math.exp(-s / 600) + 3 * Math.sin(s / 400);
  return `${s},${[0, 1, 2, 3, 4, 5].map((k) => (c - k).toFixed(1)).join(",")}`;
});
const text = `Seconds,${["Air", "B", "C", "D", "E", "F"].map((n) => `${n} (C)`).join(",")}\n${lines.join("\n")}\n`;
const began = performance.now();
const file = valueOrThrow(readOvenFile(text));
const read = performance.now();
traceFaults(file.channels, schedule);
const verdict = judgeBake(file.channels, schedule);
const judged = performance.now();
const thin = file.channels.map((c) => thinTrace(c.trace, 4000));
const thinned = performance.now();
if (!verdict.ok) throw new Error(JSON.stringify(verdict.error));
console.log(
  `  6 channels × 8 h at a sample a second: read ${(read - began).toFixed(0)} ms, looked over and judged ${(judged - read).toFixed(0)} ms, thinned to ${thin[0]?.timeS.length.toLocaleString("en-GB")} samples a channel ${(thinned - judged).toFixed(0)} ms; asked: import and draw under 1 s`,
);
