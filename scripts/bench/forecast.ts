// Forecast bounds on simulated baths: a new noisy reading at the check-by time should lie beyond the limit in about 5 %.
import { forecastLimit } from "../../src/core/bath";
import { seededRandom } from "../../src/core/simulated-line";

const random = seededRandom(4);
const BATHS = 2000;
const STEP_HOURS = 4;
let tried = 0;
let beyond = 0;
let already = 0;
while (tried < BATHS) {
  const n = 7 + Math.floor(random.uniform() * 8);
  const slope = 0.004 + random.uniform() * 0.02;
  const noise = 0.01 + random.uniform() * 0.04;
  const start = 5;
  const limit = start + slope * STEP_HOURS * n + 0.05 + random.uniform() * 0.6;
  const hours = Array.from({ length: n }, (_, i) => i * STEP_HOURS);
  const values = hours.map((h) => start + slope * h + random.normal(0, noise));
  const found = forecastLimit(hours, values, limit, "upper");
  if (!found.ok || found.value.forecast.kind !== "forecast") continue;
  const { checkByHour } = found.value.forecast;
  // Where the bound is past the limit at the last check already there is no time ahead to be tested.
  if (checkByHour <= found.value.trend.lastHour) {
    already++;
    continue;
  }
  tried++;
  if (start + slope * checkByHour + random.normal(0, noise) > limit) beyond++;
}
console.log(
  `  ${BATHS} baths of 7 to 14 checks: beyond the limit at the check-by time in ${((100 * beyond) / BATHS).toFixed(1)} %; asked: 5 ± 3 % (${already} more were due at once)`,
);
