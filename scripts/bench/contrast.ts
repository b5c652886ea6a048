// The contrast over everything, containment and a case, with 100,000 racks of a year and 2 million readings on record.
import { sql } from "kysely";
import { connect } from "../../src/db/connect";
import { proposals } from "../../src/server/causes/board";
import { openCase } from "../../src/server/causes/case-actions";
import { candidates } from "../../src/server/causes/containment";
import { explore } from "../../src/server/causes/explore";
import { heldColumns } from "../../src/server/causes/held-columns";
import { loadCase } from "../../src/server/causes/load-case";
import { keepMet } from "../../src/server/causes/rack-met";
import type { Person } from "../../src/server/sign-in/roles";

const owner = connect(process.env.DATABASE_URL ?? "", 1);
const app = connect(process.env.APP_DATABASE_URL ?? "", 6);
await sql
  .raw(`
insert into rack (id, number, job_id, hung_at, created_by) select gen_random_uuid(), 'K' || g, (select id from job order by received_at offset g % 9 limit 1), now() - interval '400 days' + g * interval '5 minutes', 'bench' from generate_series(1, 100000) g;
create temp table own as select id as rack_id, job_id, hung_at, row_number() over (order by hung_at) as g from rack where number like 'K%';
create temp table stages (name text, minute int); insert into stages values ('clean', 10), ('conversion', 13), ('rinse', 15), ('booth', 40);
create temp table made as select gen_random_uuid() as id, o.rack_id, o.job_id, s.name, o.hung_at + s.minute * interval '1 minute' as at from own o cross join stages s;
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select id, 'passage', at, at, 'bench', 'measured', job_id, rack_id, id::text, '', '' from made;
insert into passage (record_id, stage, entered_at, left_at, source) select id, name, at, at + interval '2 minutes', 'scan' from made;
create temp table checks as select gen_random_uuid() as id, b.id as bath_id, now() - interval '400 days' + g * interval '4 hours' + interval '7 minutes' as at from setup_entity b cross join generate_series(1, 2300) g where b.kind = 'bath';
insert into record (id, kind, happened_at, stored_at, by_user, grade, bath_id, idempotency_key, request_hash, content_hash) select id, 'bath-check', at, at, 'bench', 'measured', bath_id, id::text, '', '' from checks;
insert into bath_check (record_id, ordinal, parameter, value, typed, typed_unit) select id, n, p, 5 + random() * 0.3, '', '' from checks cross join (values (1, 'ph'), (2, 'temperature'), (3, 'concentration'), (4, 'conductivity')) v (n, p);
create temp table coats as select gen_random_uuid() as id, o.*, o.hung_at + interval '40 minutes' as at from own o;
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select id, 'coat', at, at, 'bench' || g % 12, 'measured', job_id, rack_id, id::text, '', '' from coats;
insert into coat (record_id, coat_no, layer, lot_id, booth, gun, kv, gun_air_kpa, earth_mohm, hook_cycles, distance_mm, reclaim_percent) select id, 1, 'top', (select lot_id from coat limit 1), 'booth ' || g % 3, 'gun ' || g % 4, 65 + random() * 15, 50 + random() * 20, random(), g % 6, 220 + random() * 60, random() * 40 from coats;
create temp table films as select gen_random_uuid() as id, o.*, o.hung_at + interval '4 hours' as at from own o;
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select id, 'thickness', at, at, 'bench', 'measured', job_id, rack_id, id::text, '', '' from films;
insert into thickness_reading (record_id, ordinal, face, spot, value_um, typed) select id, n, 'A', 'A1', 60 + random() * 30, '' from films cross join generate_series(1, 20) n;
insert into film_face (record_id, face, spots, readings, sum_um, sum_sq_um, lowest_um, highest_um) select record_id, face, count(*), count(*), sum(value_um), sum(value_um * value_um), min(value_um), max(value_um) from thickness_reading t where record_id in (select id from films) group by 1, 2;
create temp table found as select gen_random_uuid() as id, rack_id, job_id, at + interval '1 hour' as at, g from films where g % 100 = 0 or (g > 80000 and g % 4 = 1 and g % 40 < 10);
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select id, 'defect', at, at, 'bench', 'measured', job_id, rack_id, id::text, '', '' from found;
insert into defect (record_id, defect, pieces_affected, pieces_seen) select id, 'inclusions', 1, 4 from found;
`)
  .execute(owner);
await sql`analyze`.execute(owner);
const counts = await sql<{
  readings: string;
  racks: string;
}>`select (select count(*) from thickness_reading) as readings, (select count(*) from rack) as racks`.execute(owner);
console.log(
  `  ${Number(counts.rows[0]?.racks).toLocaleString("en-GB")} racks, ${Number(counts.rows[0]?.readings).toLocaleString("en-GB")} readings`,
);
const lead = { username: "ines", name: "Ines", role: "lead", customerId: null } as unknown as Person;
const at = new Date();
const ms = (from: number) => `${(performance.now() - from).toFixed(0)} ms`;
let start = performance.now();
while ((await keepMet(app, at, Date.now() + 30_000)).left) console.log(`  … reading what each rack met, ${ms(start)}`);
console.log(`  what every rack met, read once and kept: ${ms(start)}`);
start = performance.now();
await heldColumns(app, at);
console.log(`  into columns, once a process: ${ms(start)}`);
const asked = {
  defect: "inclusions",
  partId: null,
  from: new Date(at.getTime() - 500 * 86_400_000),
  to: at,
  where: null,
  by: null,
};
const median = async (what: string, run: () => Promise<string>, limit: string) => {
  const times: number[] = [];
  let said = "";
  for (let i = 0; i < 7; i++) {
    const from = performance.now();
    said = await run();
    times.push(performance.now() - from);
  }
  times.sort((a, b) => a - b);
  console.log(
    `  ${what}: median ${(times[3] as number).toFixed(0)} ms, slowest ${(times.at(-1) as number).toFixed(0)} ms; asked: ${limit}${said ? ` (${said})` : ""}`,
  );
};
await median(
  "contrast over all of them",
  async () => {
    const found = await explore(app, lead, asked, at);
    return found && !("failure" in found)
      ? `${found.contrast.affected} against ${found.contrast.others}, ${found.contrast.tried} comparisons, onset ${found.onset?.day ?? "none"}`
      : "nothing";
  },
  "under 1 s",
);
await median(
  "the same with one variable held still",
  async () => {
    await explore(app, lead, { ...asked, by: "booth" }, at);
    return "";
  },
  "under 1 s",
);
start = performance.now();
const groups = await proposals(app, lead);
console.log(
  `  board: ${groups.length} groups of ${groups.reduce((n, g) => n + g.items.length, 0).toLocaleString("en-GB")} defects, ${ms(start)}`,
);
const group = groups.find((g) => g.defect === "inclusions");
const opened = await openCase(
  app,
  lead,
  { defectRecordId: group?.items[0]?.id, zone: "", alike: group?.items.slice(1, 400).map((i) => i.id) ?? [] },
  at,
);
const number = opened.ok ? (opened.href.split("/").pop() ?? "") : "";
await median(
  "a case of 400 defects, before streaming",
  async () => {
    await loadCase(app, lead, number, at);
    return "";
  },
  "under 300 ms",
);
await median(
  "the demo's case on a structure, before streaming",
  async () => {
    await loadCase(app, lead, "29", at);
    return "";
  },
  "under 300 ms",
);
const kv = {
  kind: "value",
  quantity: "gun voltage",
  value: 79.8,
  unit: "kV",
  lower: null,
  upper: 79,
  where: "booth 1",
} as const;
const established = [{ finding: "kv-high", state: "present", grade: "measured", what: kv, sources: [] }] as const;
const { held } = await heldColumns(app, at);
await median(
  "what else may have passed like it, of all racks",
  async () => {
    const about = { rackId: held.ids[50_000] ?? "", defect: "orange-peel", established };
    const c = await candidates(app, lead, about, "overcharging", at);
    return `${c.ids.length.toLocaleString("en-GB")} of ${c.among.toLocaleString("en-GB")}`;
  },
  "at once",
);
await app.destroy();
await owner.destroy();
