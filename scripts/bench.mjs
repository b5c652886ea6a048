// npm run bench: each figure beside its comparison, in one run, on a database of its own with the demo in it.
import { spawn, spawnSync } from "node:child_process";
import {
  buildWhenNeeded,
  ensureChromium,
  ensurePackages,
  environmentFor,
  freePort,
  root,
  runTs,
  say,
  startPostgres,
  waitForHttp,
} from "./lib/environment.mjs";

ensurePackages();
const chromium = ensureChromium();
const postgres = await startPostgres();
const ownerUrl = postgres.url("sorrel_bench");
const port = await freePort(3190);
const env = environmentFor(ownerUrl, {
  BASE_URL: `http://127.0.0.1:${port}`,
  DEVICE_PORT: String(await freePort(4750)),
  CHROMIUM: chromium,
  PSQL: "psql",
});
runTs("scripts/prepare-database.ts", ["--reset-demo"], env);
buildWhenNeeded(env);

/** What is measured, in order: `npm run bench pages heat` runs those two. The ones that look at pages need the application. */
const benches = [
  ["first-load", "First-load JavaScript", false],
  ["pages", "Pages, server time on the demo", true],
  ["standing", "Shift with 600 racks on the line among 100,000", true],
  ["plan-views", "Planning, in the browser", true],
  ["bath-chart", "A bath's chart with 50,000 checks, panned in the browser", true],
  ["film-station", "Film station with 2,000 readings, in the browser", true],
  ["cut-photo", "A cross-cut read from a photo, with known truth and in the browser", true],
  ["rust-photo", "Rust and creep read from a photo, beside OpenCV, in the browser", true],
  ["import-readings", "Import of 100,000 readings", false],
  ["import-million", "Import of a million readings in one file", false],
  ["trace", "Trace of one rack among 10,000, with 2 million readings", false],
  ["film-trends", "Film over time, with 2 million readings", false],
  ["forecast", "Forecast bounds of baths", false],
  ["independent-baths", "Forecasts on baths that do not do what the forecaster assumes", false],
  ["exposure", "Racks exposed to a bath out of its window", false],
  ["yield", "First-pass yield", false],
  ["incidents", "Causes of simulated incidents, from the record and the checks offered", false],
  ["contrast", "What differs, containment and a case, among 100,000 racks with 2 million readings", false],
  ["heat", "The oven's model, plans and long traces, the core alone", false],
  ["independent-heat", "What is foretold of heat, on an oven that shares no equation with it", false],
  ["plan", "Planning, the core alone", false],
];
const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !benches.some(([known]) => known === name));
if (unknown.length > 0) say(`No such measure: ${unknown.join(", ")}. There are ${benches.map(([n]) => n).join(", ")}.`);
let next = null;
for (const [name, title, needsPages] of benches) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  if (needsPages && !next) {
    const args = ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", String(port)];
    next = spawn(process.execPath, args, {
      cwd: root,
      env: { ...env, NODE_ENV: "production" },
      stdio: ["ignore", "ignore", "inherit"],
    });
    await waitForHttp(`http://127.0.0.1:${port}/api/health`);
  }
  if (!needsPages && next) {
    // The application would take time from what is measured without it.
    next.kill("SIGTERM");
    next = null;
  }
  say(`\n${title}`);
  runTs(`scripts/bench/${name}.ts`, [], env);
}
next?.kill("SIGTERM");
spawnSync("psql", ["-qX", postgres.url("postgres"), "-c", "drop database if exists sorrel_bench with (force)"]);
