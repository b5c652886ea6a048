// Film over time over 2 million readings: by painter, gun, part, face, oven place and hour, with capability, chart and over-build. Runs after trace.ts, which puts the readings in.
import { sql } from "kysely";
import { connect } from "../../src/db/connect";
import { filmTrends } from "../../src/server/film/film-trends";

const owner = connect(process.env.DATABASE_URL ?? "", 1);
const app = connect(process.env.APP_DATABASE_URL ?? "", 1);
const lead = { id: "bench", username: "bench", name: "bench", role: "lead" as const, customerId: null };
await sql
  .raw(`
insert into film_face (record_id, face, spots, readings, sum_um, sum_sq_um, lowest_um, highest_um)
  select t.record_id, t.face, 1, count(*), avg(t.value_um), avg(t.value_um) ^ 2, avg(t.value_um), avg(t.value_um)
  from thickness_reading t join record r on r.id = t.record_id and r.by_user = 'bench' group by t.record_id, t.face on conflict do nothing;
create temp table coats as select gen_random_uuid() as id, r.id as rack_id, r.job_id, r.hung_at + interval '90 minutes' as at, (row_number() over ()) as n from rack r where r.number like 'B%';
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select id, 'coat', at, at, 'painter' || n % 6, 'by-procedure', job_id, rack_id, id::text, '', '' from coats;
insert into coat (record_id, coat_no, layer, lot_id, booth, gun) select id, 1, 'top', (select id from setup_entity where kind = 'lot' limit 1), 'Booth 1', 'Gun ' || n % 4 from coats;
create temp table bakes as select gen_random_uuid() as id, r.id as rack_id, r.job_id, r.hung_at + interval '110 minutes' as at, (row_number() over ()) as n from rack r where r.number like 'B%';
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, idempotency_key, request_hash, content_hash) select id, 'bake', at, at, 'bench', 'measured', job_id, id::text, '', '' from bakes;
insert into bake (record_id, oven_id, load_no, powder_id, door_closed_at, timing) select id, (select id from setup_entity where kind = 'oven' limit 1), n::text, (select id from setup_entity where kind = 'powder' limit 1), at, 'metal-at-temperature' from bakes;
insert into bake_place (record_id, rack_id, place) select id, rack_id, 'place ' || n % 5 from bakes;
`)
  .execute(owner);
await sql`analyze`.execute(owner);
const one = await sql<{ part_id: string; powder_id: string }>`
  select j.part_id, j.powder_id from rack k join job j on j.id = k.job_id where k.number like 'B%' limit 1`.execute(
  app,
);
const job = one.rows[0];
const DAYS = 6 * 365;
for (const [label, partId, powderId] of [
  ["all powders, all parts", null, null],
  ["one powder and part: capability, chart and over-build too", job?.part_id ?? null, job?.powder_id ?? null],
] as const) {
  const times: number[] = [];
  let readings = 0;
  for (let i = 0; i < 7; i++) {
    const start = performance.now();
    readings = (await filmTrends(app, lead, new Date(), { days: DAYS, powderId, partId })).readings;
    times.push(performance.now() - start);
  }
  times.sort((a, b) => a - b);
  console.log(
    `  ${label}: ${readings.toLocaleString("en-GB")} readings, median ${times[3]?.toFixed(0)} ms, slowest ${times.at(-1)?.toFixed(0)} ms; asked: under 1 s`,
  );
}
await app.destroy();
await owner.destroy();
