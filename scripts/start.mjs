// npm start: everything from a bare machine to the served application.
import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { networkInterfaces } from "node:os";
import path from "node:path";
import {
  buildWhenNeeded,
  dataDir,
  ensurePackages,
  environmentFor,
  fail,
  freePort,
  isOurs,
  root,
  runTs,
  say,
  startPostgres,
  waitForHttp,
} from "./lib/environment.mjs";

const dev = process.argv.includes("--dev");
// A shop of one's own stands in a database of its own: the demo beside it is never mixed with it.
const ownShop = process.argv.includes("--own");
const resetDemo = process.argv.includes("--reset-demo");
ensurePackages();
mkdirSync(dataDir, { recursive: true });
if (ownShop && resetDemo) fail("--own and --reset-demo do not go together: a shop of one's own is never reset.");
const pidFile = path.join(dataDir, "pid");
if (existsSync(pidFile)) {
  const pid = Number(readFileSync(pidFile, "utf8"));
  if (isOurs(pid) && !resetDemo) fail(`Sorrel is already running (process ${pid}). Stop it with: npm stop`);
}
const own = process.env.DATABASE_URL ? null : await startPostgres();
const ownerUrl = process.env.DATABASE_URL ?? own.url(ownShop ? "sorrel_own" : "sorrel");
const host = process.env.HOST ?? "127.0.0.1";
const port = await freePort(Number(process.env.PORT ?? 3000));
const baseUrl = process.env.BASE_URL ?? `http://${reachedAt(host)}:${port}`;
const devicePort = await freePort(4710);
const env = environmentFor(ownerUrl, { BASE_URL: baseUrl, DEVICE_PORT: String(devicePort) });
runTs("scripts/prepare-database.ts", resetDemo ? ["--reset-demo"] : ownShop ? [] : ["--demo"], env);
if (resetDemo) {
  say("Demo data made anew.");
  process.exit(0);
}
if (!dev) buildWhenNeeded(env);
const next = spawn(
  process.execPath,
  ["node_modules/next/dist/bin/next", dev ? "dev" : "start", "-H", host, "-p", String(port)],
  { cwd: root, env: { ...env, NODE_ENV: dev ? "development" : "production" }, stdio: ["ignore", "inherit", "inherit"] },
);
const devices = spawn(process.execPath, ["--import", "tsx", "scripts/devices.ts"], {
  cwd: root,
  env,
  stdio: ["ignore", "inherit", "inherit"],
});
const sealer = spawn(process.execPath, ["--import", "tsx", "scripts/seal-record.ts", "--every-minutes", "10"], {
  cwd: root,
  env,
  stdio: ["ignore", "inherit", "inherit"],
});
const keeper = spawn(process.execPath, ["--import", "tsx", "scripts/keep-backups.ts"], {
  cwd: root,
  env,
  stdio: ["ignore", "inherit", "inherit"],
});
writeFileSync(pidFile, String(process.pid));
const stop = () => {
  for (const child of [next, devices, sealer, keeper]) child.kill("SIGTERM");
  rmSync(pidFile, { force: true });
};
process.on("SIGINT", stop);
process.on("SIGTERM", stop);
next.on("exit", (code) => {
  stop();
  process.exit(code ?? 0);
});
if (!(await waitForHttp(`http://${host}:${port}/api/health`))) fail("The application did not answer within 60 s.");
say(`\nSorrel is at ${baseUrl}`);
runTs("scripts/demo-sign-ins.ts", [], env);
say("Stop with Ctrl+C or npm stop.");

/** The address others reach this machine at, where it listens on all of them: codes on paper lead there. */
function reachedAt(listening) {
  if (listening !== "0.0.0.0") return listening;
  const outside = Object.values(networkInterfaces())
    .flat()
    .find((address) => address.family === "IPv4" && !address.internal);
  return outside?.address ?? "127.0.0.1";
}
