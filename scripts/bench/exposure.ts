// Racks exposed in a nine-day stretch out of window, among 100,000 racks of one year with seven passages each.
import { sql } from "kysely";
import { connect } from "../../src/db/connect";
import { exposedRacks } from "../../src/server/baths/exposure";
import type { Person } from "../../src/server/sign-in/roles";

const owner = connect(process.env.DATABASE_URL ?? "", 1);
const app = connect(process.env.APP_DATABASE_URL ?? "", 1);
await sql
  .raw(`
insert into rack (id, number, job_id, hung_at, created_by) select gen_random_uuid(), 'X' || g, (select id from job limit 1), now() - interval '1 year' + g * interval '5 minutes', 'bench' from generate_series(1, 100000) g;
create temp table stages (name text, minute int); insert into stages values ('blast', 0), ('clean', 60), ('conversion', 63), ('rinse', 65), ('dry-off', 66), ('booth', 90), ('oven', 110);
create temp table made as select gen_random_uuid() as id, r.id as rack_id, r.job_id, s.name, r.hung_at + s.minute * interval '1 minute' as at from rack r cross join stages s where r.number like 'X%';
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select id, 'passage', at, at, 'bench', 'measured', job_id, rack_id, id::text, '', '' from made;
insert into passage (record_id, stage, entered_at, left_at, source) select id, name, at, at + interval '2 minutes', 'scan' from made;
create temp table decided as select gen_random_uuid() as id, r.id as rack_id, r.job_id, r.hung_at + interval '5 hours' as at from rack r where r.number like 'X%' and random() < 0.8;
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select id, 'disposition', at, at, 'bench', 'measured', job_id, rack_id, id::text, '', '' from decided;
insert into disposition (record_id, decision, note, verdict, signed_name) select id, 'accept', '', '{}', 'bench' from decided;
`)
  .execute(owner);
await sql`analyze`.execute(owner);
const lead = { username: "ines", name: "Ines", role: "lead", customerId: null } as unknown as Person;
const times: number[] = [];
let total = 0;
for (let i = 0; i < 20; i++) {
  const from = new Date(Date.now() - (300 - i * 12) * 86_400_000);
  const start = performance.now();
  const found = await exposedRacks(app, lead, "conversion", from, new Date(from.getTime() + 9 * 86_400_000));
  times.push(performance.now() - start);
  total = Math.max(total, found.total);
}
times.sort((a, b) => a - b);
console.log(
  `  nine days, ${total.toLocaleString("en-GB")} racks exposed of 100,000: median ${(times[10] as number).toFixed(0)} ms, slowest ${(times.at(-1) as number).toFixed(0)} ms; asked: under 1 s`,
);
await app.destroy();
await owner.destroy();
