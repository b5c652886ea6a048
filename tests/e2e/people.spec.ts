import AxeBuilder from "@axe-core/playwright";
import { expect } from "@playwright/test";
import { choose, signIn, test } from "../support/browser";

test("the administrator makes someone, who sets a password by a code, works, and is locked out", async ({
  page,
  browser,
}) => {
  test.setTimeout(120_000);
  await signIn(page, "dagny");
  await page.goto("/");
  await page.getByRole("button", { name: /Dagny/ }).press("Enter");
  await page.getByRole("menuitem", { name: "People" }).press("Enter");
  await expect(page.getByRole("heading", { name: "People", level: 1 })).toBeVisible();
  const fresh = page.getByRole("region", { name: "Someone new" });
  await fresh.getByLabel(/^User name/).fill("Nell Q");
  await fresh.getByLabel("Name", { exact: true }).fill("Nell Quarrel");
  await fresh.getByRole("button", { name: "Make this person" }).press("Enter");
  await expect(fresh.getByText(/is no user name/)).toBeVisible();
  await fresh.getByLabel(/^User name/).fill("nell");
  await choose(fresh.getByLabel("Role"), "inspector");
  await fresh.getByRole("button", { name: "Make this person" }).press("Enter");
  const row = page.locator("[data-fold]").filter({ has: page.getByText("Nell Quarrel", { exact: true }) });
  await expect(row.getByText("no password yet")).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);

  await row.getByRole("button").first().press("Enter");
  await row.getByRole("button", { name: "Give a one-time code" }).press("Enter");
  const code = ((await row.getByRole("status").locator("b").textContent()) ?? "").trim();
  expect(code).toMatch(/^[2-9A-Z]{5} [2-9A-Z]{5}$/);

  // On her own tablet.
  const hers = await (await browser.newContext()).newPage();
  await hers.goto("/sign-in");
  await hers.getByRole("link", { name: "I was given a one-time code" }).press("Enter");
  await expect(hers.getByRole("heading", { name: "A password of your own" })).toBeVisible();
  await hers.getByLabel("User name").fill("nell");
  await hers.getByLabel("One-time code").fill(code);
  await hers.getByLabel(/^New password/).fill("quiet harbour wall");
  await hers.getByLabel(/once more/).fill("quiet harbour wal");
  await hers.getByRole("button", { name: "Set it and sign in" }).press("Enter");
  await expect(hers.getByText("The two passwords are not the same.")).toBeVisible();
  await expect(hers.getByLabel("User name")).toHaveValue("nell");
  await hers.getByLabel("One-time code").fill(code);
  await hers.getByLabel(/^New password/).fill("quiet harbour wall");
  await hers.getByLabel(/once more/).fill("quiet harbour wall");
  await hers.getByRole("button", { name: "Set it and sign in" }).press("Enter");
  await expect(hers.getByRole("heading", { name: "What needs a hand now" })).toBeVisible();
  // She may do what an inspector may, and keeps nobody.
  await hers.goto("/test/gauges");
  await expect(hers.getByRole("button", { name: "Record the check" })).toBeVisible();
  await hers.goto("/shop/people");
  await expect(hers).toHaveURL(/\/refused\?needs=administer/);
  await expect(hers.getByRole("heading", { name: "People", level: 1 })).toHaveCount(0);
  await hers.goto("/shop/password");
  await hers.getByLabel("Password now").fill("quiet harbour wall");
  await hers.getByLabel(/^New one/).fill("louder harbour wall");
  await hers.getByLabel(/once more/).fill("louder harbour wall");
  await hers.getByRole("button", { name: "Change it" }).press("Enter");
  await expect(hers.getByText(/Wherever else you were signed in/)).toBeVisible();
  await hers.goto("/");
  await expect(hers.getByRole("heading", { name: "What needs a hand now" })).toBeVisible();

  await page.reload();
  await expect(row.getByText("signed in, 1 place")).toBeVisible();
  const lock = row.getByRole("button", { name: "Lock out" });
  await expect(async () => {
    if (!(await lock.isVisible())) await row.getByRole("button").first().press("Enter");
    await lock.press("Enter", { timeout: 2000 });
  }).toPass();
  await row.getByRole("button", { name: "Yes, lock Nell Quarrel out" }).press("Enter");
  await expect(row.getByText("locked out", { exact: true }).first()).toBeVisible();
  await hers.goto("/racks");
  await expect(hers).toHaveURL(/\/sign-in/);
  await hers.getByLabel("User name").fill("nell");
  await hers.getByLabel("Password").fill("louder harbour wall");
  await hers.getByRole("button", { name: "Sign in" }).press("Enter");
  await expect(hers.getByRole("alert").filter({ hasText: /user name|password/i })).toBeVisible();
  await hers.context().close();
});

test("a lead keeps nobody: neither the page nor what it does is theirs", async ({ page }) => {
  await signIn(page, "ines");
  await page.goto("/shop/people");
  await expect(page).toHaveURL(/\/refused/);
  await page.goto("/");
  await page.getByRole("button", { name: /Ines/ }).press("Enter");
  await expect(page.getByRole("menuitem", { name: "Your password" })).toBeVisible();
  await expect(page.getByRole("menuitem", { name: "People" })).toHaveCount(0);
});

test("an inspector sets up nothing of the shop: no page of it opens, and none is offered", async ({ page }) => {
  await signIn(page, "bea");
  for (const path of [
    "/shop",
    "/shop/rates",
    "/shop/schools",
    "/shop/equipment/BOOTH",
    "/plan/parts/new",
    "/shop/customers",
    "/shop/instruments",
    "/shop/equipment",
  ]) {
    await page.goto(path);
    await expect(page, path).toHaveURL(/\/refused\?needs=release/);
    await expect(page.locator("form"), path).toHaveCount(0);
  }
  await page.goto("/");
  await page.getByRole("button", { name: /Bea/ }).press("Enter");
  await expect(page.getByRole("menuitem", { name: "Your password" })).toBeVisible();
  await expect(page.getByRole("menuitem", { name: "Shop" })).toHaveCount(0);
});

test("a customer's person takes in no complaint and takes nothing of the stock; what they take is their own", async ({
  page,
}) => {
  await signIn(page, "otto");
  await page.goto("/causes");
  await expect(page.getByRole("link", { name: "A customer complains" })).toBeHidden();
  await page.goto("/causes/complaints/new");
  await expect(page).toHaveURL(/refused/);
  await page.goto("/records/export");
  await expect(page.getByText("Stock, as it is now")).toBeHidden();
  expect((await page.request.get("/api/export/stock.csv")).status()).toBe(404);
  expect((await page.request.get("/api/export/user.csv")).status()).toBe(404);
  const baths = await (await page.request.get("/api/export/bath_check.csv")).text();
  expect(baths.trimEnd().split("\r\n")).toHaveLength(1);
  expect((await page.request.get("/api/labels.pdf?of=lot&number=GR-210/2610-2")).status()).toBe(404);
  expect((await page.request.get("/api/labels.pdf?of=moon")).status()).toBe(400);
});
