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
say("\nFirst-load JavaScript");
runTs("scripts/bench/first-load.ts", [], env);
say("\nPages, server time on the demo");
const next = spawn(
  process.execPath,
  ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", String(port)],
  { cwd: root, env: { ...env, NODE_ENV: "production" }, stdio: ["ignore", "ignore", "inherit"] },
);
if (await waitForHttp(`http://127.0.0.1:${port}/api/health`)) {
  runTs("scripts/bench/pages.ts", [], env);
  say("\nPlanning, in the browser");
  runTs("scripts/bench/plan-views.ts", [], env);
  say("\nA bath's chart with 50,000 checks, panned in the browser");
  runTs("scripts/bench/bath-chart.ts", [], env);
  say("\nFilm station with 2,000 readings, in the browser");
  runTs("scripts/bench/film-station.ts", [], env);
}
next.kill("SIGTERM");
say("\nImport of 100,000 readings");
runTs("scripts/bench/import-readings.ts", [], env);
say("\nImport of a million readings in one file");
runTs("scripts/bench/import-million.ts", [], env);
say("\nTrace of one rack among 10,000, with 2 million readings");
runTs("scripts/bench/trace.ts", [], env);
say("\nFilm over time, with 2 million readings");
runTs("scripts/bench/film-trends.ts", [], env);
say("\nForecast bounds of baths");
runTs("scripts/bench/forecast.ts", [], env);
say("\nRacks exposed to a bath out of its window");
runTs("scripts/bench/exposure.ts", [], env);
say("\nThe oven's model, plans and long traces, the core alone");
runTs("scripts/bench/heat.ts", [], env);
say("\nPlanning, the core alone");
runTs("scripts/bench/plan.ts", [], env);
spawnSync("psql", ["-qX", postgres.url("postgres"), "-c", "drop database if exists sorrel_bench with (force)"]);
