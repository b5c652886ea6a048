// npm test: all set-up, then lint, types, core and database tests, and the real interface in Chromium. Ends with "N passed, N failed".
import { spawn, spawnSync } from "node:child_process";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import path from "node:path";
import {
  buildWhenNeeded,
  dataDir,
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

const only = process.argv[2];
/**
 * Tests have a clock of their own, which starts here whatever the hour is: application, demo, stand-ins and browser go by
 * it. Another start (TEST_NOW, as `npm run test:hours` sets it) must do as well.
 */
const startsAt = process.env.TEST_NOW ?? "2026-11-26T10:20:00Z";
const zone = process.env.TEST_ZONE ?? "Europe/London";
process.env.CLOCK_AHEAD_MS = String(Date.parse(startsAt) - Date.now());
const clockNow = () => Date.now() + Number(process.env.CLOCK_AHEAD_MS);
let passed = 0;
let failed = 0;
const count = (name, good, bad) => {
  passed += good;
  failed += bad;
  say(`${name}: ${good} passed${bad ? `, ${bad} FAILED` : ""}`);
};

ensurePackages();
const chromium = ensureChromium();
mkdirSync(dataDir, { recursive: true });
const postgres = await startPostgres({ name: "pg-test", port: 54340, fast: true });
const results = path.join(root, "test-results");
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });

if (!only || only === "lint") {
  const check = (name, args) =>
    count(
      name,
      ...(spawnSync(process.execPath, args, { cwd: root, stdio: ["ignore", "ignore", "inherit"] }).status === 0
        ? [1, 0]
        : [0, 1]),
    );
  check("lint", ["node_modules/@biomejs/biome/bin/biome", "check", "."]);
  check("layers", ["--import", "tsx", "scripts/check-layers.ts"]);
}

// A template with the demo in it; each database of a test is a copy of it.
const template = "sorrel_template";
// Its last hour is left empty: what a test puts there is then the newest of its kind, whatever the hour of the day.
const anchor = new Date(clockNow() - 60 * 60_000).toISOString();
runTs(
  "scripts/prepare-database.ts",
  ["--reset-demo"],
  environmentFor(postgres.url(template), { DEMO_ANCHOR: anchor, DEMO_ZONE: zone }),
);
const ownerEnv = environmentFor(postgres.url(template));
const copyTemplate = (name) => {
  const psql = (statement) =>
    spawnSync("psql", ["-qX", postgres.url("postgres"), "-c", statement], { encoding: "utf8" });
  psql(`drop database if exists ${name} with (force)`);
  const made = psql(`create database ${name} template ${template}`);
  if (made.status !== 0) throw new Error(made.stderr);
};

if (!only || only === "unit") {
  const out = path.join(results, "vitest.json");
  spawnSync(
    process.execPath,
    ["node_modules/vitest/vitest.mjs", "run", "--reporter=default", "--reporter=json", `--outputFile.json=${out}`],
    {
      cwd: root,
      env: { ...ownerEnv, TEST_SERVER_URL: postgres.url("postgres"), TEST_TEMPLATE: template, TZ: zone },
      stdio: ["ignore", "inherit", "inherit"],
    },
  );
  try {
    const report = JSON.parse(readFileSync(out, "utf8"));
    count(
      "core and database",
      report.numPassedTests,
      report.numFailedTests + (report.numTotalTests === 0 || (!report.success && report.numFailedTests === 0) ? 1 : 0),
    );
  } catch {
    count("core and database", 0, 1);
  }
}

if (!only || only === "e2e") {
  // Two browsers at a time, each with an application and a database of its own: neither sees what the other does.
  const devicePort = await freePort(4730);
  const servers = [];
  for (const n of [1, 2]) {
    const name = `sorrel_e2e_${n}`;
    copyTemplate(name);
    const port = await freePort(3169 + n);
    const base = `http://127.0.0.1:${port}`;
    const env = environmentFor(postgres.url(name), {
      BASE_URL: base,
      DEVICE_PORT: String(devicePort),
      NODE_ENV: "production",
    });
    servers.push({ base, port, env });
  }
  // And a shop of its own, that begins from nothing.
  const ownPort = await freePort(3180);
  const ownBase = `http://127.0.0.1:${ownPort}`;
  const ownEnv = environmentFor(postgres.url("sorrel_e2e_own"), {
    BASE_URL: ownBase,
    DEVICE_PORT: String(devicePort),
    NODE_ENV: "production",
  });
  // What the last run began is taken away first: a shop begins only once.
  const { default: pg } = await import("pg");
  const client = new pg.Client({ connectionString: postgres.url("postgres") });
  await client.connect();
  await client.query("drop database if exists sorrel_e2e_own with (force)");
  await client.end();
  runTs("scripts/prepare-database.ts", [], ownEnv);
  servers.push({ base: ownBase, port: ownPort, env: ownEnv });
  buildWhenNeeded(servers[0].env);
  const quiet = { cwd: root, stdio: ["ignore", "ignore", "inherit"] };
  const next = ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p"];
  const children = [
    ...servers.map(({ port, env }) => spawn(process.execPath, [...next, String(port)], { ...quiet, env })),
    spawn(process.execPath, ["--import", "tsx", "scripts/devices.ts"], { ...quiet, env: servers[0].env }),
  ];
  const up = await Promise.all(servers.map(({ base }) => waitForHttp(`${base}/api/health`)));
  if (up.includes(false)) count("application start", 0, 1);
  else {
    const out = path.join(results, "playwright.json");
    spawnSync(process.execPath, ["node_modules/@playwright/test/cli.js", "test", ...process.argv.slice(3)], {
      cwd: root,
      env: {
        ...process.env,
        E2E_BASES: servers
          .slice(0, 2)
          .map(({ base }) => base)
          .join(" "),
        E2E_OWN_BASE: ownBase,
        CHROMIUM: chromium,
        PLAYWRIGHT_JSON_OUTPUT_NAME: out,
        TZ: zone,
      },
      stdio: ["ignore", "inherit", "inherit"],
    });
    try {
      const { stats } = JSON.parse(readFileSync(out, "utf8"));
      count("interface in Chromium", stats.expected, stats.unexpected + stats.flaky + (stats.expected === 0 ? 1 : 0));
    } catch {
      count("interface in Chromium", 0, 1);
    }
  }
  for (const child of children) child.kill("SIGTERM");
}
postgres.stop();
say(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
