// Seals what no seal lists yet, once, or every so many minutes while the application runs.
import { connect } from "../src/db/connect";
import { now } from "../src/server/now";
import { sealRecords } from "../src/server/record/seal";

const at = process.argv.indexOf("--every-minutes");
const everyMinutes = at > 0 ? Number(process.argv[at + 1]) : 0;
const db = connect(process.env.APP_DATABASE_URL ?? "", 1);
const once = async () => {
  const made = await sealRecords(db, process.env.SEAL_PRIVATE_KEY ?? "", now());
  if (made) console.log(JSON.stringify({ at: now().toISOString(), level: "info", what: "sealed", ...made }));
};
await once();
if (everyMinutes > 0)
  setInterval(
    () =>
      once().catch((error) =>
        console.error(JSON.stringify({ level: "error", what: "sealing failed", error: String(error) })),
      ),
    everyMinutes * 60_000,
  );
else await db.destroy();
