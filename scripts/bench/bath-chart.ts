// A bath's chart with 50,000 checks, panned in Chromium: main-thread work of each step, from the browser's own task
// times. Needs a demo database of its own: it puts the checks in.
import { chromium } from "@playwright/test";
import { sql } from "kysely";
import { connect } from "../../src/db/connect";
import { launchOptions, signIn } from "../../tests/support/browser";

const CHECKS = 50_000;
const base = process.env.BASE_URL ?? "";
const owner = connect(process.env.DATABASE_URL ?? "", 1);
await sql
  .raw(`
create temp table made as select gen_random_uuid() as id, (select id from setup_entity where kind = 'bath' and code = 'Tank 4') as bath, now() - interval '1 minute' * 15 * (${CHECKS} - g) as at, g from generate_series(1, ${CHECKS}) g;
insert into record (id, kind, happened_at, stored_at, by_user, grade, bath_id, idempotency_key, request_hash, content_hash) select id, 'bath-check', at, at, 'bench', 'measured', bath, id::text, '', '' from made;
insert into bath_check (record_id, ordinal, parameter, value, typed, typed_unit) select id, 1, 'conductivity', 60 + 25 * sin(g / 700.0) + 10 * random() + case when random() < 0.001 then 120 else 0 end, '', '' from made;
analyze;
`)
  .execute(owner);
await owner.destroy();

const browser = await chromium.launch(launchOptions);
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
await signIn(page, "ines", base);
const opened = Date.now();
await page.goto(`${base}/pretreat/tank-4/history`);
const chart = page.getByRole("slider", { name: /conductivity/ });
await chart.waitFor();
console.log(`  opened with ${CHECKS.toLocaleString("en-GB")} checks: ${Date.now() - opened} ms`);

const session = await page.context().newCDPSession(page);
await session.send("Performance.enable");
const busyS = async (): Promise<number> => {
  const { metrics } = await session.send("Performance.getMetrics");
  return metrics.find((m) => m.name === "TaskDuration")?.value ?? 0;
};
const settled = () =>
  page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(null)))));
const quantile = (values: number[], q: number) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * q))] ?? 0;

/** What the measuring itself costs: a step that moves nothing. */
async function idle(): Promise<number> {
  const spent: number[] = [];
  for (let i = 0; i < 40; i++) {
    const before = await busyS();
    await settled();
    spent.push(((await busyS()) - before) * 1000);
  }
  return quantile(spent, 0.5);
}
async function pan(label: string): Promise<void> {
  const box = await chart.boundingBox();
  if (!box) throw new Error("no chart");
  const still = await idle();
  const spent: number[] = [];
  await page.mouse.move(box.x + 420, box.y + 120);
  await page.mouse.down();
  for (let i = 0; i < 120; i++) {
    const before = await busyS();
    await page.mouse.move(box.x + 420 + (i % 60 < 30 ? i % 30 : 30 - (i % 30)) * 12, box.y + 120);
    await settled();
    spent.push(((await busyS()) - before) * 1000);
  }
  await page.mouse.up();
  console.log(
    `  ${label}: ${spent.length} steps, median ${quantile(spent, 0.5).toFixed(1)} ms, 95 % under ${quantile(spent, 0.95).toFixed(1)} ms of main-thread work a step (${still.toFixed(1)} ms of it with nothing moved); asked: under 16 ms`,
  );
}
await pan("newest six weeks");
await page.getByRole("button", { name: "All of it" }).click();
await page.getByRole("button", { name: "Closer" }).click();
await pan("half of all checks in view");
await browser.close();
