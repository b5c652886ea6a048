// A million readings, file on disk to committed rows, checks and hash included, against psql \copy of the same rows; and the memory it takes.
import { execFileSync } from "node:child_process";
import { createReadStream, createWriteStream, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { finished } from "node:stream/promises";
import { sql } from "kysely";
import { seededRandom } from "../../src/core/simulated-line";
import { connect } from "../../src/db/connect";
import { importMany } from "../../src/server/imports/import-many";
import { setupAt } from "../../src/server/setup/setup-data";

const READINGS = 1_000_000;
const RUNS = 3;
const owner = connect(process.env.DATABASE_URL ?? "", 1);
const app = connect(process.env.APP_DATABASE_URL ?? "", 2);
const directory = mkdtempSync(path.join(tmpdir(), "sorrel-bench-"));
const random = seededRandom(1);
const person = { id: "bench", username: "bench", name: "bench", role: "inspector" as const, customerId: null };
const parts = await setupAt(app, "part", new Date());
const racks = (
  await sql<{
    id: string;
    number: string;
    part: string;
  }>`select k.id, k.number, j.part_id as part from rack k join job j on j.id = k.job_id order by k.number limit 100`.execute(
    app,
  )
).rows.flatMap((k) => {
  const spots = parts.get(k.part)?.data.faces.flatMap((f) => f.spots.map((s) => ({ face: f.id, spot: s.id }))) ?? [];
  return spots.length > 0 ? [{ ...k, spots }] : [];
});
const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] as number;
const perSecond = (since: number) => READINGS / ((performance.now() - since) / 1000);

await sql`create table if not exists copy_million (like thickness_reading including all)`.execute(owner);
const ours: number[] = [];
const copy: number[] = [];
let mostMb = 0;
for (let run = 0; run < RUNS; run++) {
  const file = path.join(directory, "readings.csv");
  const plain = path.join(directory, "copy.csv");
  const [written, alike] = [createWriteStream(file), createWriteStream(plain)];
  written.write("rack,spot,thickness um\n");
  for (let i = 0; i < READINGS; i++) {
    const rack = racks[i % racks.length] as (typeof racks)[number];
    const at = rack.spots[Math.floor(i / racks.length) % rack.spots.length] as { face: string; spot: string };
    const um = Math.max(20, random.normal(74, 5)).toFixed(1);
    const more = written.write(`${rack.number},${at.spot},${um}\n`);
    const moreAlike = alike.write(`${rack.id},${run * READINGS + i + 1},${at.face},${at.spot},${um},${um},\n`);
    if (!more || !moreAlike) await new Promise((done) => setImmediate(done));
  }
  written.end();
  alike.end();
  await Promise.all([finished(written), finished(alike)]);
  global.gc?.();
  const watch = setInterval(() => {
    mostMb = Math.max(mostMb, process.memoryUsage().rss / 1e6);
  }, 20);
  let start = performance.now();
  const outcome = await importMany(process.env.APP_DATABASE_URL ?? "", person, createReadStream(file), {
    rack: null,
    unit: null,
    at: new Date(),
  });
  clearInterval(watch);
  if (!outcome.ok || outcome.readings !== READINGS) throw new Error(JSON.stringify(outcome).slice(0, 300));
  ours.push(perSecond(start));
  start = performance.now();
  const command = `\\copy copy_million from '${plain}' with (format csv)`;
  execFileSync(process.env.PSQL ?? "psql", ["-qX", process.env.DATABASE_URL ?? "", "-c", command]);
  copy.push(perSecond(start));
}
rmSync(directory, { recursive: true });
const figure = (n: number) => Math.round(n).toLocaleString("en-GB");
console.log(`  Sorrel, file to committed rows  ${figure(median(ours))} rows/s (median of ${RUNS})`);
console.log(`  psql \\copy, same shape          ${figure(median(copy))} rows/s`);
console.log(`  ratio ${(median(ours) / median(copy)).toFixed(2)}, asked: at least 0.40`);
console.log(`  highest memory of the importing process ${figure(mostMb)} MB, asked: under 300`);
await app.destroy();
await owner.destroy();
