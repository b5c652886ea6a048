// Runs one of the project's TypeScript commands against its database: node scripts/with-database.mjs FILE …
import { ensurePackages, environmentFor, runTs, startPostgres } from "./lib/environment.mjs";

ensurePackages();
const ownerUrl = process.env.DATABASE_URL ?? (await startPostgres()).url("sorrel");
runTs(process.argv[2], process.argv.slice(3), environmentFor(ownerUrl));
