// npm run verify: recomputes every hash, root and signature, and names what differs. Exits 1 when anything does.
import { connect } from "../src/db/connect";
import { verifyRecord } from "../src/server/record/seal";

const db = connect(process.env.APP_DATABASE_URL ?? "", 2);
const found = await verifyRecord(db, process.env.SEAL_PUBLIC_KEY ?? "");
await db.destroy();
console.log(
  `${found.records} records, ${found.seals} seals, ${found.unsealed} not yet sealed. Newest seal ${found.newestSeal ?? "none"}.`,
);
for (const d of found.discrepancies)
  console.log(`${d.kind}: ${"recordId" in d ? `record ${d.recordId}` : ""}${d.seal !== null ? ` seal ${d.seal}` : ""}`);
console.log(found.discrepancies.length === 0 ? "Nothing differs." : `${found.discrepancies.length} differ.`);
process.exit(found.discrepancies.length === 0 ? 0 : 1);
