import { readFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";
import { now } from "../../src/server/now";
import { choose, localInput, signIn, test, traceOfRack } from "../support/browser";

const expected = JSON.parse(readFileSync("tests/samples/expected.json", "utf8"));
const read = async (page: Page, name: string) => {
  await page.goto("/records/import");
  await page.getByLabel("File", { exact: true }).setInputFiles(`tests/samples/${name}`);
  await page.getByRole("button", { name: "Read it" }).click();
};
const row = (page: Page, name: string) =>
  page.locator(".row", { has: page.getByText(name, { exact: true }) }).locator(".fig");
/** A rack that was decided, whatever the hour: it has been through the line. */
const anyRack = async (page: Page, part: RegExp) => {
  const response = await page.request.get("/plan");
  expect(response.ok()).toBe(true);
  await page.goto("/plan");
  await page.getByRole("link", { name: part }).first().click();
  const decided = page.locator("#racks .row").filter({ hasText: /decided/ });
  return ((await decided.first().locator(".fig").first().textContent()) ?? "").trim();
};

test.beforeEach(async ({ page }) => signIn(page, "tomasz"));

test("semicolons and decimal commas: understood, shown, stored whole, once", async ({ page }) => {
  const rack = await anyRack(page, /Tram shelter post/);
  const want = expected["gauge-semicolon.csv"];
  await read(page, "gauge-semicolon.csv");
  await expect(row(page, "Readings")).toHaveText(String(want.readings));
  await expect(row(page, "Unit")).toHaveText("µm, from the preamble");
  await expect(row(page, "Mean")).toHaveText(`${want.meanUm} µm`);
  await page.getByLabel("For rack").fill(rack);
  await page.getByRole("button", { name: "Store all of it" }).click();
  await expect(page.getByText("30 readings stored.")).toBeVisible();
  await read(page, "gauge-semicolon.csv");
  await page.getByLabel("For rack").fill(rack);
  await page.getByRole("button", { name: "Store all of it" }).click();
  await expect(page.getByText("already on record")).toBeVisible();
});

test("mils: what was left out is listed with its line and why", async ({ page }) => {
  await read(page, "gauge-mil.csv");
  await expect(row(page, "Readings")).toHaveText("22");
  await expect(row(page, "Unit")).toHaveText("mil, from the heading");
  await expect(row(page, "Mean")).toHaveText(`${expected["gauge-mil.csv"].meanUm} µm`);
  for (const { line, why } of expected["gauge-mil.csv"].rejected)
    await expect(page.locator(".row", { hasText: `line ${line}` })).toContainText(why);
});

test("a plain stream", async ({ page }) => {
  await read(page, "gauge-stream.txt");
  await expect(row(page, "Readings")).toHaveText("15");
  await expect(row(page, "Mean")).toHaveText(`${expected["gauge-stream.txt"].meanUm} µm`);
});

test("six channels with a gap and a dead one", async ({ page }) => {
  const rack = await anyRack(page, /Tram shelter post/);
  await read(page, "oven-six-channel.csv");
  await expect(row(page, "Channels")).toHaveText("6");
  await expect(row(page, "Samples")).toHaveText("222");
  await expect(page.getByRole("row", { name: /Cover/ })).toContainText("600 s");
  await expect(page.getByRole("row", { name: /Casting/ })).toContainText("890–1080 s");
  await traceOfRack(page, rack);
  await page.getByLabel("Trace began").fill(localInput(new Date(now().getTime() - 3_600_000)));
  await page.getByRole("button", { name: "Store all of it" }).click();
  await expect(page.getByText("222 samples stored.")).toBeVisible();
});

test("Fahrenheit, out of order, one row twice", async ({ page }) => {
  await read(page, "oven-fahrenheit.tsv");
  await expect(row(page, "Samples")).toHaveText("100");
  await expect(row(page, "Unit")).toHaveText("°F, from the file");
  await expect(row(page, "Rows in order")).toHaveText("no: put in order");
  await expect(row(page, "Repeated rows dropped")).toHaveText("1");
  await expect(page.getByRole("row", { name: /T1/ })).toContainText("212.3");
});

test("a bath log, day first", async ({ page }) => {
  await read(page, "bath-log.csv");
  await expect(row(page, "Readings")).toHaveText("36");
  await expect(row(page, "Tanks")).toHaveText("Tank 3, Tank 4");
  await expect(row(page, "Dates")).toHaveText("day first");
  await page.getByRole("button", { name: "Store all of it" }).click();
  await expect(page.getByText("36 readings stored.")).toBeVisible();
});

test("a broken file is refused whole, each line named", async ({ page }) => {
  await read(page, "gauge-broken.csv");
  for (const { line, why } of expected["gauge-broken.csv"].problems)
    await expect(page.locator(".row", { hasText: `line ${line}` })).toContainText(why);
  await expect(page.getByRole("button", { name: "Store all of it" })).toBeHidden();
});

test("a history of readings: progress, stopped and nothing kept, then stored whole, and once", async ({ page }) => {
  const rack = await anyRack(page, /Tram shelter post/);
  const rows = (n: number) =>
    Array.from({ length: n }, (_, i) => `${rack},A${(i % 5) + 1},${(70 + (i % 17) / 2).toFixed(1)}`).join("\n");
  const file = (n: number) => ({
    name: "history.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(`rack,spot,thickness um\n${rows(n)}\n`),
  });
  await page.goto("/records/import");
  await page.getByLabel("File of readings").setInputFiles(file(1_500_000));
  await page.getByRole("button", { name: "Import all of it" }).click();
  await expect(page.getByRole("progressbar", { name: "Read so far" })).toBeVisible();
  await page.getByRole("button", { name: "Stop, keep nothing" }).click();
  await expect(page.getByText("Stopped: nothing of the file was kept.")).toBeVisible();
  await page.getByLabel("File of readings").setInputFiles(file(20_000));
  await page.getByRole("button", { name: "Import all of it" }).click();
  await expect(page.getByText("20,000 readings on 1 rack stored")).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: "Import all of it" }).click();
  await expect(page.getByText("imported before: nothing was stored twice")).toBeVisible({ timeout: 30_000 });
  const slip = Buffer.from(`rack,spot,thickness um\n${rows(30)}\n${rack},A1,2.9\n`);
  await page.getByLabel("File of readings").setInputFiles({ name: "slip.csv", mimeType: "text/csv", buffer: slip });
  await page.getByRole("button", { name: "Import all of it" }).click();
  await expect(page.getByText("line 32")).toBeVisible();
  await expect(page.getByText("as if the gauge had changed to mil")).toBeVisible();
});

test("a trace with headings of its own: its columns are said, read anew, and remembered", async ({ page }) => {
  const rows = Array.from(
    { length: 40 },
    (_, i) => `${Math.floor(i / 2)}:${i % 2 ? "30" : "00"};${20 + i * 4},5;${30 + i * 4},0;1450`,
  );
  const file = (name: string) => ({
    name,
    mimeType: "text/csv",
    buffer: Buffer.from(`Messgerät 7;;;\nLaufzeit;Klemme 1;Klemme 2;Lüfter\n${rows.join("\n")}\n`),
  });
  await page.goto("/records/import");
  await page.getByLabel("File", { exact: true }).setInputFiles(file("odd.csv"));
  await page.getByRole("button", { name: "Read it" }).click();
  await expect(page.getByText("The file names no unit")).toBeVisible();
  await choose(page.getByLabel("Column Lüfter is"), "left out");
  await choose(page.getByLabel("Unit", { exact: true }), "°C");
  await expect(page.getByText("Understood as an oven trace")).toBeVisible();
  await expect(row(page, "Channels")).toHaveText("2");
  await expect(row(page, "Columns left out")).toHaveText("Lüfter");
  await choose(page.getByLabel("Column Klemme 2 is"), "air of the oven");
  await expect(page.getByRole("row", { name: /Klemme 2 air/ })).toBeVisible();
});
