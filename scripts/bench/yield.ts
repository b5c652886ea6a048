// First-pass yield of a year of 100,000 racks, each coated once and decided on, a tenth of them held first, a twentieth with a defect.
import { sql } from "kysely";
import { connect } from "../../src/db/connect";
import type { Person } from "../../src/server/sign-in/roles";
import { firstPassYield, racksBehind } from "../../src/server/yield/first-pass-yield";

const owner = connect(process.env.DATABASE_URL ?? "", 1);
const app = connect(process.env.APP_DATABASE_URL ?? "", 4);
await sql
  .raw(`
insert into rack (id, number, job_id, hung_at, created_by) select gen_random_uuid(), 'Q' || g, (select id from job order by received_at offset g % 9 limit 1), now() - interval '360 days' + g * interval '5 minutes', 'bench' from generate_series(1, 100000) g;
create temp table own as select id, job_id, hung_at, row_number() over (order by hung_at) as g from rack where number like 'Q%';
create temp table coats as select gen_random_uuid() as id, * from (select id as rack_id, job_id, hung_at + interval '1 hour' as at, g from own) o;
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select id, 'coat', at, at, 'bench' || g % 12, 'measured', job_id, rack_id, id::text, '', '' from coats;
insert into coat (record_id, coat_no, layer, lot_id, booth) select id, 1, 'top', (select lot_id from coat limit 1), 'booth ' || g % 3 from coats;
create temp table decided as select gen_random_uuid() as id, * from (select id as rack_id, job_id, hung_at + interval '5 hours' as at, g from own) o;
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select id, 'disposition', at, at, 'bench', 'measured', job_id, rack_id, id::text, '', '' from decided;
insert into disposition (record_id, decision, note, verdict, signed_name) select id, case when g % 10 = 0 then 'hold' else 'accept' end, '', '{}', 'bench' from decided;
create temp table found as select gen_random_uuid() as id, rack_id, job_id, at, g from decided where g % 20 = 0;
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select id, 'defect', at, at, 'bench', 'measured', job_id, rack_id, id::text, '', '' from found;
insert into defect (record_id, defect, pieces_affected, pieces_seen) select id, (array['orange-peel','pinholes','soft-film'])[1 + g / 20 % 3], 1, 4 from found;
`)
  .execute(owner);
await sql`analyze`.execute(owner);
const lead = { username: "ines", name: "Ines", role: "lead", customerId: null } as unknown as Person;
for (const days of [28, 365]) {
  const times: number[] = [];
  let racks = 0;
  for (let i = 0; i < 9; i++) {
    const start = performance.now();
    racks = (await firstPassYield(app, lead, new Date(), { days })).whole?.racks ?? 0;
    times.push(performance.now() - start);
  }
  times.sort((a, b) => a - b);
  console.log(
    `  ${days} days, ${racks.toLocaleString("en-GB")} racks: median ${(times[4] as number).toFixed(0)} ms, slowest ${(times.at(-1) as number).toFixed(0)} ms; asked: under 1 s`,
  );
}
const start = performance.now();
const { total } = await racksBehind(app, lead, new Date(), {
  days: 365,
  of: { group: "shift", key: "Late shift" },
  page: 1,
});
console.log(
  `  racks behind one shift's figure, ${total.toLocaleString("en-GB")}: ${(performance.now() - start).toFixed(0)} ms`,
);
await app.destroy();
await owner.destroy();
