// npm run screenshots: one picture of each main view from a freshly loaded demo, into docs/screenshots.
import { spawn } from "node:child_process";
import {
  buildWhenNeeded,
  ensureChromium,
  ensurePackages,
  environmentFor,
  freePort,
  root,
  runTs,
  startPostgres,
  waitForHttp,
} from "./lib/environment.mjs";

ensurePackages();
const chromium = ensureChromium();
const postgres = await startPostgres();
const port = await freePort(3180);
const env = environmentFor(postgres.url("sorrel_screenshots"), {
  DEVICE_PORT: String(await freePort(4760)),
  BASE_URL: `http://127.0.0.1:${port}`,
  CHROMIUM: chromium,
});
runTs("scripts/prepare-database.ts", ["--reset-demo"], env);
buildWhenNeeded(env);
const next = spawn(
  process.execPath,
  ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", String(port)],
  { cwd: root, env: { ...env, NODE_ENV: "production" }, stdio: ["ignore", "ignore", "inherit"] },
);
const devices = spawn(process.execPath, ["--import", "tsx", "scripts/devices.ts"], {
  cwd: root,
  env,
  stdio: ["ignore", "ignore", "inherit"],
});
if (await waitForHttp(`http://127.0.0.1:${port}/api/health`)) runTs("scripts/take-screenshots.ts", [], env);
next.kill("SIGTERM");
devices.kill("SIGTERM");
