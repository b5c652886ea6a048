// Takes a backup whenever the shop's own interval says so, while the application runs beside it.
import { spawnSync } from "node:child_process";
import { backupDue } from "../src/core/site";
import { connect } from "../src/db/connect";
import { now } from "../src/server/now";
import { siteAt } from "../src/server/setup/setup-data";

const LOOKS_EVERY_MS = 10 * 60_000;
const db = connect(process.env.DATABASE_URL ?? "", 1);
const say = (level: "info" | "error", what: string, more: object = {}) =>
  console[level === "info" ? "log" : "error"](JSON.stringify({ at: now().toISOString(), level, what, ...more }));

/** Nothing is taken of a shop that has not begun. */
async function look(): Promise<void> {
  const begun = await db.selectFrom("setup_entity").select("id").where("kind", "=", "site").executeTakeFirst();
  if (!begun) return;
  const { backupEveryHours } = await siteAt(db, now());
  const last = await db.selectFrom("backup_taken").select("taken_at").orderBy("taken_at", "desc").executeTakeFirst();
  if (!backupDue(backupEveryHours, last?.taken_at ?? null, now())) return;
  const done = spawnSync(process.execPath, ["--import", "tsx", "scripts/backup.ts", "--scheduled"], {
    env: process.env,
    stdio: ["ignore", "ignore", "inherit"],
  });
  if (done.status === 0) say("info", "backup taken");
  else say("error", "backup failed", { status: done.status });
}
const once = () => look().catch((error) => say("error", "backup failed", { error: String(error) }));
await once();
if (process.argv.includes("--once")) await db.destroy();
else setInterval(once, LOOKS_EVERY_MS);
