// npm run verify: recomputes every hash, root and signature, and where each rack stands, and names what differs. Exits 1 when anything does.
import { connect } from "../src/db/connect";
import { wrongJobs, wrongStanding } from "../src/server/line/standing";
import { verifyRecord } from "../src/server/record/seal";

const db = connect(process.env.APP_DATABASE_URL ?? "", 2);
const found = await verifyRecord(db, process.env.SEAL_PUBLIC_KEY ?? "");
const astray = await wrongStanding(db);
const jobsAstray = await wrongJobs(db);
await db.destroy();
console.log(
  `${found.records} records, ${found.seals} seals, ${found.unsealed} not yet sealed. Newest seal ${found.newestSeal ?? "none"}.`,
);
for (const d of found.discrepancies)
  console.log(`${d.kind}: ${"recordId" in d ? `record ${d.recordId}` : ""}${d.seal !== null ? ` seal ${d.seal}` : ""}`);
for (const rack of astray) console.log(`standing: rack ${rack.number}, ${rack.columns.join(", ")}`);
for (const job of jobsAstray) console.log(`standing: job ${job}`);
const differ = found.discrepancies.length + astray.length + jobsAstray.length;
console.log(differ === 0 ? "Nothing differs." : `${differ} differ.`);
process.exit(differ === 0 ? 0 : 1);
