import { expect, type Page } from "@playwright/test";
import { signIn, test } from "../support/browser";

const pages = [
  "/racks/0869",
  "/racks/0869/release",
  "/pretreat/tank-3",
  "/causes/29",
  "/cure/loads/oven-1/m-4",
  "/records/import",
];

/** What stands on a page and in its fields of time. */
async function read(page: Page, address: string): Promise<readonly string[]> {
  await page.goto(address);
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  await page.waitForLoadState("networkidle");
  const text = (await page.locator("#bench").textContent()) ?? "";
  const fields = await page
    .locator("#bench input[type=time], #bench input[type=date], #bench input[type=datetime-local]")
    .evaluateAll((all) => all.map((field) => (field as HTMLInputElement).value));
  return [text, ...fields];
}

test("times are the shop's, whatever the browser's: the same page and the same fields from half the world away", async ({
  page,
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ timezoneId: "Pacific/Auckland", baseURL: baseURL ?? "" });
  const there = await context.newPage();
  await signIn(page, "ines");
  await signIn(there, "ines");
  expect(await there.evaluate(() => Intl.DateTimeFormat().resolvedOptions().timeZone)).toBe("Pacific/Auckland");
  let times = 0;
  // Read at once, and again where a minute went by or somebody wrote in between.
  for (const address of pages)
    await expect(async () => {
      const [here, far] = await Promise.all([read(page, address), read(there, address)]);
      expect(far, address).toEqual(here);
      times += here.join(" ").match(/\b\d\d:\d\d\b/g)?.length ?? 0;
    }).toPass({ timeout: 25_000 });
  expect(times).toBeGreaterThan(20);
  await context.close();
});
