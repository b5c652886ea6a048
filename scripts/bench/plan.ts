// Planning: the fit of 200 parts against the site's places, and 300 jobs laid out on the stages.
import { type Equipment, fitPart, schedule, type WorkToPlan } from "../../src/core/plan";
import { seededRandom } from "../../src/core/simulated-line";

const random = seededRandom(7);
const between = (least: number, most: number) => least + random.uniform() * (most - least);
const places: Equipment[] = (["blast-room", "washer", "booth", "oven", "cart", "hook", "rack"] as const).map(
  (role) => ({
    code: role,
    name: role,
    role,
    inside: role === "hook" ? null : { lengthMm: 5000, widthMm: 1600, heightMm: 2100 },
    mostKg: role === "hook" ? 60 : 900,
  }),
);
let start = performance.now();
for (let i = 0; i < 200; i++) {
  const fit = fitPart(
    {
      box: { lengthMm: between(100, 4000), widthMm: between(50, 1500), heightMm: between(50, 2000) },
      massKg: between(1, 200),
    },
    places,
  );
  if (!fit.ok) throw new Error(fit.error.kind);
}
console.log(`  fit of 200 parts: ${(performance.now() - start).toFixed(1)} ms; asked: under 1 s`);
const work: WorkToPlan[] = Array.from({ length: 300 }, (_, i) => ({
  job: `J-${i}`,
  hours: { blast: between(0.5, 6), wash: between(0.25, 2), booth: between(0.5, 5), oven: between(0.5, 3) },
  colour: ["grey", "yellow", "green", "white", "black"][Math.floor(between(0, 5))] as string,
  cureGroup: "190",
  dueInHours: between(1, 900),
  pinnedAtHour: i % 40 === 0 ? between(0, 400) : null,
}));
start = performance.now();
const planned = schedule(work);
if (!planned.ok) throw new Error(planned.error.kind);
console.log(
  `  300 jobs on the stages: ${(performance.now() - start).toFixed(1)} ms, ${planned.value.conflicts.length} conflicts named`,
);
