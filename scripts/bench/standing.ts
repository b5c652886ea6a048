// Shift with 40 racks on the line among the demo's, then with 600 among 100,000 and 2 million readings, in one run: request
// to last byte on loopback, signed in, after a warm-up.
import { chromium } from "@playwright/test";
import { sql } from "kysely";
import { connect } from "../../src/db/connect";
import { refreshStanding } from "../../src/server/line/standing";
import { launchOptions, signIn } from "../../tests/support/browser";

const base = process.env.BASE_URL ?? "";
const owner = connect(process.env.DATABASE_URL ?? "", 1);
const browser = await chromium.launch(launchOptions);
const page = await browser.newPage();
await signIn(page, "tomasz", base);
const cookie = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join("; ");
await browser.close();

async function measure(path: string): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < 65; i++) {
    const start = performance.now();
    const response = await fetch(base + path, { headers: { cookie } });
    await response.arrayBuffer();
    if (response.status !== 200) throw new Error(`${path} answered ${response.status}`);
    if (i >= 5) times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[times.length >> 1] as number;
}
/** Median time until a word has come, and until the last byte, ms: what streams after the first is not waited for. */
async function streamed(path: string, word: string): Promise<readonly [number, number]> {
  const [first, whole]: [number[], number[]] = [[], []];
  for (let i = 0; i < 8; i++) {
    const start = performance.now();
    const response = await fetch(base + path, { headers: { cookie } });
    const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
    if (response.status !== 200 || !reader) throw new Error(`${path} answered ${response.status}`);
    let text = "";
    let came: number | null = null;
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      text += part.value;
      if (came === null && text.includes(word)) came = performance.now() - start;
    }
    if (came === null) throw new Error(`${path} never said ${word}`);
    if (i < 2) continue;
    first.push(came);
    whole.push(performance.now() - start);
  }
  const middle = (of: number[]) => of.sort((a, b) => a - b)[of.length >> 1] as number;
  return [middle(first), middle(whole)];
}
/** The pages that are to stay as quick with a hundred thousand racks as on the demo: what each is for, and all of it. */
const pages = [
  ["case", "/causes/29", "speaks for"],
  ["rack", "/racks/0869", "<h1"],
  ["film", "/racks/0869/thickness", "Part sketch"],
] as const;
const sayPages = async () => {
  const found = [];
  for (const [name, path, word] of pages) {
    const [first, whole] = await streamed(path, word);
    found.push(`${name} ${first.toFixed(0)} ms, all of it ${whole.toFixed(0)} ms`);
  }
  console.log(`  ${await racks()} racks: ${found.join("; ")}`);
};

const open = async () =>
  Number(
    (await sql<{ n: string }>`select count(*) as n from rack_standing where gone_at is null`.execute(owner)).rows[0]?.n,
  );
const racks = async () => Number((await sql<{ n: string }>`select count(*) as n from rack`.execute(owner)).rows[0]?.n);

/** Racks hung within the last days, washed and coated, so that the line has so many on it. */
async function hangUntil(count: number, prefix: string): Promise<void> {
  const more = count - (await open());
  await sql`
    insert into rack (id, number, job_id, hung_at, created_by)
    select gen_random_uuid(), ${prefix}::text || g, (select id from job order by received_at desc limit 1), now() - g * interval '20 minutes', 'bench' from generate_series(1, ${more}::int) g`.execute(
    owner,
  );
  await sql`
    insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash)
    select gen_random_uuid(), 'passage', k.hung_at + interval '10 minutes', k.hung_at + interval '10 minutes', 'bench', 'measured', k.job_id, k.id, ${prefix}::text || k.number || ':passage', '', '' from rack k where k.number like ${`${prefix}%`}`.execute(
    owner,
  );
  await sql`
    insert into passage (record_id, stage, entered_at, left_at, source)
    select r.id, (array['blast','clean','booth','oven'])[1 + (row_number() over ()) % 4], r.happened_at, null, 'key' from record r where r.idempotency_key like ${`${prefix}%:passage`}`.execute(
    owner,
  );
  const { rows } = await sql<{ id: string }>`select id from rack where number like ${`${prefix}%`}`.execute(owner);
  await refreshStanding(
    owner,
    rows.map((r) => r.id),
  );
}

await hangUntil(40, "S4-");
await sql`analyze`.execute(owner);
const few = await measure("/");
console.log(`  ${await open()} on the line among ${await racks()}: Shift median ${few.toFixed(0)} ms`);
await sayPages();

await sql
  .raw(`
create temp table past as select gen_random_uuid() as id, 'SH' || g as number, (select id from job order by received_at limit 1) as job_id, now() - interval '5 years' + g * interval '25 minutes' as at from generate_series(1, 100000) g;
insert into rack (id, number, job_id, hung_at, created_by) select id, number, job_id, at, 'bench' from past;
insert into rack_standing (rack_id, number, job_id, customer_id, part_id, hung_at, stage, passage, since, open, state, result, next, next_since, readings, asked, gone_at)
  select p.id, p.number, p.job_id, j.customer_id, j.part_id, p.at, 'release', 'cool', p.at, false, 'to-release', 'in', null, p.at, 20, 20, p.at + interval '1 day' from past p join job j on j.id = p.job_id;
create temp table sets as select gen_random_uuid() as set_id, id as rack_id, job_id, at from past;
insert into record (id, kind, happened_at, stored_at, by_user, grade, job_id, rack_id, idempotency_key, request_hash, content_hash) select set_id, 'thickness', at, at, 'bench', 'measured', job_id, rack_id, set_id::text, '', '' from sets;
insert into thickness_set (record_id, coat_no, source, typed_unit) select set_id, 1, 'import', 'um' from sets;
insert into thickness_reading (record_id, ordinal, face, spot, value_um, typed) select set_id, n, 'A', 'A' || 1 + n % 5, 70 + n, '' from sets cross join generate_series(1, 20) n;
`)
  .execute(owner);
await hangUntil(600, "S6-");
await sql`analyze`.execute(owner);
const many = await measure("/");
const list = await measure("/racks?page=3");
console.log(
  `  ${await open()} on the line among ${await racks()}, 2 million readings: Shift median ${many.toFixed(0)} ms, ${(many / few).toFixed(2)} times as long; asked: at most 1.3 times. A page of the list of racks ${list.toFixed(0)} ms`,
);
await sayPages();
await owner.destroy();
