// npm stop: ends the application and the project's own PostgreSQL.
import { existsSync, readFileSync, rmSync } from "node:fs";
import path from "node:path";
import { dataDir, findPostgres, isOurs, say, startPostgres } from "./lib/environment.mjs";

const pidFile = path.join(dataDir, "pid");
if (existsSync(pidFile)) {
  const pid = Number(readFileSync(pidFile, "utf8"));
  // The number may have been taken by somebody else since.
  if (isOurs(pid)) process.kill(pid, "SIGTERM");
  rmSync(pidFile, { force: true });
}
if (findPostgres() && existsSync(path.join(dataDir, "pg"))) (await startPostgres()).stop();
say("Stopped.");
