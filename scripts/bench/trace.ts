// Conditions-when-it-passed for one rack, with 10,000 racks, five years of bath checks and 2 million readings around it.
import { sql } from "kysely";
import { connect } from "../../src/db/connect";
import { conditionsWhenPassed } from "../../src/server/trace/conditions";

const owner = connect(process.env.DATABASE_URL ?? "", 1);
const app = connect(process.env.APP_DATABASE_URL ?? "", 1);
await sql
  .raw(`
insert into rack (id, number, job_id, hung_at, created_by) select gen_random_uuid(), 'B' || g, (select id from job limit 1), now() - interval '5 years' + g * interval '4 hours', 'bench' from generate_series(1, 10000) g;
create temp table stages (name text, minute int); insert into stages values ('blast', 0), ('clean', 60), ('conversion', 63), ('rinse', 65), ('dry-off', 66), ('booth', 90), ('oven', 110);
create temp table made as select gen_random_uuid() as id, r.id as rack_id, r.job_id, s.name, r.hung_at + s.minute * interval '1 minute' as at from rack r cross join stages s where r.number like 'B%';
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select id, 'passage', at, at, 'bench', 'measured', job_id, rack_id, id::text, '', '' from made;
insert into passage (record_id, stage, entered_at, left_at, source) select id, name, at, at + interval '2 minutes', 'scan' from made;
create temp table checks as select gen_random_uuid() as id, b.id as bath_id, now() - interval '5 years' + g * interval '4 hours' + interval '7 minutes' as at, b.code from setup_entity b cross join generate_series(1, 11000) g where b.kind = 'bath';
insert into record (id, kind, happened_at, stored_at, by_user, grade, bath_id, idempotency_key, request_hash, content_hash) select id, 'bath-check', at, at, 'bench', 'measured', bath_id, id::text, '', '' from checks;
insert into bath_check (record_id, ordinal, parameter, value, typed, typed_unit) select id, n, p, 5 + random() * 0.3, '', '' from checks cross join (values (1, 'ph'), (2, 'temperature'), (3, 'concentration'), (4, 'conductivity')) v (n, p);
create temp table films as select gen_random_uuid() as id, r.id as rack_id, r.job_id, r.hung_at + interval '4 hours' as at from rack r where r.number like 'B%';
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select id, 'thickness', at, at, 'bench', 'measured', job_id, rack_id, id::text, '', '' from films;
insert into thickness_reading (record_id, ordinal, face, spot, value_um, typed) select id, g, 'A', 'A1', 60 + random() * 30, '' from films cross join generate_series(1, 200) g;
`)
  .execute(owner);
await sql`analyze`.execute(owner);
const racks = await app
  .selectFrom("rack")
  .select("id")
  .where("number", "like", "B%")
  .orderBy(sql`random()`)
  .limit(60)
  .execute();
const times: number[] = [];
for (const rack of racks) {
  const start = performance.now();
  await conditionsWhenPassed(app, [rack.id], new Date());
  times.push(performance.now() - start);
}
times.sort((a, b) => a - b);
const many = await app.selectFrom("rack").select("id").where("number", "like", "B%").limit(1000).execute();
const start = performance.now();
const found = await conditionsWhenPassed(
  app,
  many.map((r) => r.id),
  new Date(),
);
const { rows } = await sql<{
  readings: string;
  racks: string;
}>`select (select count(*) from thickness_reading) as readings, (select count(*) from rack) as racks`.execute(owner);
console.log(
  `  ${Number(rows[0]?.racks).toLocaleString("en-GB")} racks, ${Number(rows[0]?.readings).toLocaleString("en-GB")} readings`,
);
console.log(
  `  one rack: median ${(times[times.length >> 1] as number).toFixed(1)} ms, slowest ${(times.at(-1) as number).toFixed(1)} ms, query and set-up read included; asked: under 25 ms`,
);
console.log(
  `  1,000 racks in one query: ${(performance.now() - start).toFixed(0)} ms, ${found.baths.length.toLocaleString("en-GB")} values`,
);
await app.destroy();
await owner.destroy();
