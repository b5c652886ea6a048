// npm stop: ends the application and the project's own PostgreSQL.
import { existsSync, readFileSync, rmSync } from "node:fs";
import path from "node:path";
import { dataDir, findPostgres, say, startPostgres } from "./lib/environment.mjs";

const pidFile = path.join(dataDir, "pid");
if (existsSync(pidFile)) {
  try {
    process.kill(Number(readFileSync(pidFile, "utf8")), "SIGTERM");
  } catch {}
  rmSync(pidFile, { force: true });
}
if (findPostgres() && existsSync(path.join(dataDir, "pg"))) (await startPostgres()).stop();
say("Stopped.");
