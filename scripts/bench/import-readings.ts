// File on disk to committed rows, parsing and checks included, against psql \copy into a table of the same shape.
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { sql } from "kysely";
import { seededRandom } from "../../src/core/simulated-line";
import { connect } from "../../src/db/connect";
import { importFile } from "../../src/server/imports/import-file";

const READINGS = 100_000;
const owner = connect(process.env.DATABASE_URL ?? "", 1);
const app = connect(process.env.APP_DATABASE_URL ?? "", 2);
const directory = mkdtempSync(path.join(tmpdir(), "sorrel-bench-"));
const random = seededRandom(1);
const rack = await app.selectFrom("rack").select(["number", "id"]).orderBy("number").limit(1).executeTakeFirstOrThrow();
const person = { id: "bench", username: "bench", name: "bench", role: "inspector" as const, customerId: null };
const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] as number;

const ours: number[] = [];
const copy: number[] = [];
for (let run = 0; run < 5; run++) {
  const file = path.join(directory, `gauge-${run}.csv`);
  writeFileSync(
    file,
    `No.,Thickness um\n${Array.from({ length: READINGS }, (_, i) => `${i + 1},${Math.max(1, random.normal(74, 5)).toFixed(1)}`).join("\n")}\n`,
  );
  let start = performance.now();
  const form = new FormData();
  form.set("file", new File([readFileSync(file)], path.basename(file)));
  form.set("store", "yes");
  form.set("rack", rack.number);
  const outcome = await importFile(app, person, form, new Date());
  if (!outcome.ok || outcome.stored !== READINGS) throw new Error(JSON.stringify(outcome).slice(0, 300));
  ours.push(READINGS / ((performance.now() - start) / 1000));

  const rows = path.join(directory, `copy-${run}.csv`);
  const lines = readFileSync(file, "utf8").trim().split("\n").slice(1);
  writeFileSync(
    rows,
    lines.map((l, i) => `${rack.id},${run * READINGS + i + 1},A,A1,${l.split(",")[1]},${l.split(",")[1]},`).join("\n"),
  );
  await sql`create table if not exists copy_target (like thickness_reading including all)`.execute(owner);
  start = performance.now();
  execFileSync(process.env.PSQL ?? "psql", [
    "-qX",
    process.env.DATABASE_URL ?? "",
    "-c",
    `\\copy copy_target from '${rows}' with (format csv)`,
  ]);
  copy.push(READINGS / ((performance.now() - start) / 1000));
}
console.log(
  `  Sorrel, file to committed rows  ${Math.round(median(ours)).toLocaleString("en-GB")} rows/s (median of ${ours.length})`,
);
console.log(`  psql \\copy, same shape          ${Math.round(median(copy)).toLocaleString("en-GB")} rows/s`);
console.log(`  ratio ${(median(ours) / median(copy)).toFixed(2)}, asked: at least 0.33`);
await app.destroy();
await owner.destroy();
