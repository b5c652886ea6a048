// Runs one of the project's TypeScript commands against its database, with --own the shop's own: node scripts/with-database.mjs FILE …
import { ensurePackages, environmentFor, runTs, startPostgres } from "./lib/environment.mjs";

ensurePackages();
const ownerUrl =
  process.env.DATABASE_URL ?? (await startPostgres()).url(process.argv.includes("--own") ? "sorrel_own" : "sorrel");
runTs(process.argv[2], process.argv.slice(3), environmentFor(ownerUrl));
