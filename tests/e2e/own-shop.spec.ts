import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";
import { choose, test } from "../support/browser";

const base = process.env.E2E_OWN_BASE ?? "";
const views = [
  "/",
  "/plan",
  "/plan/receive",
  "/plan/calendar",
  "/plan/parts",
  "/prepare",
  "/pretreat",
  "/pretreat/round",
  "/pretreat/set-up",
  "/coat",
  "/coat/powders",
  "/coat/sheets",
  "/cure",
  "/cure/planner",
  "/cure/conveyor",
  "/cure/ovens",
  "/cure/ovens/new/set-up",
  "/cure/proof",
  "/racks",
  "/test",
  "/test/film",
  "/test/gauges",
  "/upkeep",
  "/release",
  "/field",
  "/causes",
  "/records",
  "/records/import",
  "/shop",
  "/shop/customers",
  "/shop/instruments",
  "/shop/equipment",
  "/shop/rates",
  "/shop/schools",
  "/shop/backup",
  "/shop/begin",
  "/records/export",
  "/causes/complaints/new",
  "/plan/parts/new",
  "/shop/people",
  "/shop/password",
];
const none = async (page: Page) => {
  const { violations } = await new AxeBuilder({ page }).setLegacyMode(true).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
};

test("a shop begins from nothing: its name, its hours, its administrator; then customers, a gauge, places, limits", async ({
  page,
}) => {
  test.setTimeout(180_000);
  await page.goto(`${base}/`);
  await expect(page).toHaveURL(/\/first-run$/);
  await none(page);
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByLabel(/What it is called/).fill("Copper Lane Coatings");
  await choose(page.getByLabel("Time zone"), "Europe/Lisbon");
  await page.getByRole("button", { name: "One more shift" }).press("Enter");
  await page.getByLabel("Shift 2").fill("Late shift");
  await page.getByLabel("Saturday").press(" ");
  await page.getByLabel("Your name").fill("Ada Mell");
  await page.getByLabel(/^User name/).fill("ada");
  await page.getByLabel(/^Password, /).fill("copper lane kettle");
  await page.getByLabel("The password once more").fill("copper lane kettle");
  await page.getByRole("button", { name: "Begin", exact: true }).press("Enter");
  await expect(page.getByRole("heading", { name: "What needs a hand now" })).toBeVisible();
  await expect(page.getByText("Copper Lane Coatings")).toBeVisible();
  const before = page.getByRole("region", { name: "Before the first rack" });
  await expect(before.getByRole("listitem")).toHaveCount(8);
  await expect(before.getByText("not yet")).toHaveCount(8);
  await none(page);
  // Begun once, it is begun: the first page is no way in any more.
  await page.goto(`${base}/first-run`);
  await expect(page).not.toHaveURL(/first-run/);

  // No view needs the demo: each opens and says how to begin.
  for (const path of views) {
    const answer = await page.goto(base + path);
    expect(answer?.status(), path).toBe(200);
    await expect(page.locator("h1").first(), path).toBeVisible();
    await expect(page.getByText("could not be shown"), path).toHaveCount(0);
  }

  // What is missing is named where it is needed, with the way to it.
  for (const [path, to] of [
    ["/test/gauges", "/shop/instruments"],
    ["/pretreat", "/pretreat/set-up"],
    ["/cure/ovens", "/cure/ovens/new/set-up"],
    ["/plan/receive", "/shop/customers"],
  ] as const) {
    await page.goto(base + path);
    await page.getByRole("link", { name: "Set one up" }).first().click();
    await expect(page).toHaveURL(base + to);
  }

  const more = page.getByRole("region", { name: "One more" });
  await page.goto(`${base}/shop/customers`);
  await none(page);
  for (const name of ["Harrow Brackets", "Lumen Row"]) {
    await more.getByLabel(/^Name/).fill(name);
    await more.getByLabel("Where it comes from").fill("first order");
    await more.getByRole("button", { name: "Put it on record" }).press("Enter");
    await expect(page.locator("[data-fold]").getByText(name)).toBeVisible();
  }
  await expect(page.locator("[data-fold]").filter({ hasText: "Lumen Row" }).getByText("C2")).toBeVisible();
  await more.getByLabel(/^Name/).fill("lumen row");
  await more.getByLabel("Where it comes from").fill("again");
  await more.getByRole("button", { name: "Put it on record" }).press("Enter");
  await expect(more.getByText(/lumen row/i)).toBeVisible();

  await page.goto(`${base}/shop/instruments`);
  await more.getByLabel("Number on it").fill("88");
  await more.getByLabel("Name", { exact: true }).fill("Film gauge 88");
  await more.getByLabel("Serial number").fill("0088-A");
  await more.getByLabel("Where it comes from").fill("bought new, certificate in the drawer");
  await more.getByRole("button", { name: "Put it on record" }).press("Enter");
  await expect(page.locator("[data-fold]").getByText("0088-A")).toBeVisible();
  await page.goto(`${base}/test/gauges`);
  await expect(page.getByText("Film gauge 88, serial 0088-A")).toBeVisible();

  await page.goto(`${base}/shop/equipment`);
  await more.getByLabel("Called on the line").fill("BOOTH-1");
  await more.getByLabel("Name", { exact: true }).fill("Hand booth");
  await more.getByLabel("Inside along, mm").fill("2400");
  await more.getByLabel("across, mm").fill("1200");
  await more.getByLabel("Where it comes from").fill("measured");
  await more.getByRole("button", { name: "Put it on record" }).press("Enter");
  await expect(more.getByText("Type a number here.")).toBeVisible();
  await more.getByLabel("up, mm").fill("2000");
  await more.getByRole("button", { name: "Put it on record" }).press("Enter");
  await expect(page.locator("[data-fold]").getByText("2400 × 1200 × 2000 mm")).toBeVisible();

  await page.goto(`${base}/`);
  for (const name of ["Customers", "Equipment", "Film gauge"])
    await expect(before.getByRole("link", { name }).getByText("set up", { exact: true })).toBeVisible();
  await expect(before.getByText("not yet")).toHaveCount(5);
  await page.goto(`${base}/shop`);
  await none(page);
  await page.getByText("5 not set up yet").click();
  await expect(page.getByRole("region", { name: "Not set up yet" }).getByRole("listitem")).toHaveCount(5);
  await page.getByLabel(/^Metal above the dew point/).fill("40");
  await page.getByLabel("Why it changes").fill("salt air off the estuary");
  await page.getByRole("button", { name: "Keep it" }).press("Enter");
  await expect(page.getByText(/Metal above the dew point, at least: 40 is over 20/)).toBeVisible();
  await page.getByLabel(/^Metal above the dew point/).fill("4");
  await page.getByRole("button", { name: "Keep it" }).press("Enter");
  await expect(page.getByText("Kept, from now on.")).toBeVisible();
  await expect(page.locator("aside").getByText(/salt air off the estuary/)).toBeVisible();
  await page.goto(`${base}/coat`);
  await page.goto(`${base}/shop`);
  await expect(page.getByLabel(/^Metal above the dew point/)).toHaveValue("4");
});
