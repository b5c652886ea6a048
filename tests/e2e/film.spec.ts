import { expect, type Page } from "@playwright/test";
import { choose, signIn, test } from "../support/browser";

/** A rack of its own for each test, with nothing read on it. */
async function emptyRack(page: Page, number: string): Promise<string> {
  await page.goto("/jobs/J-410");
  await page.waitForLoadState("networkidle");
  await page.getByText("Hang a rack", { exact: true }).first().click();
  await page.getByLabel("Number on its tag").fill(number);
  await page.getByLabel("Pieces").fill("2");
  await page.getByRole("button", { name: "Record the rack" }).press("Enter");
  await page.waitForURL(new RegExp(`/racks/${number}`));
  return `/racks/${number}/thickness`;
}
const read = (page: Page, count: string) =>
  expect(page.locator("main").getByText(count, { exact: false }).first()).toBeVisible();

test("by the streaming gauge: every spot read in walking order, then recorded", async ({ page }) => {
  test.setTimeout(90_000);
  await signIn(page, "tomasz");
  await page.goto(await emptyRack(page, "F101"));
  await expect(async () => {
    await page.getByRole("button", { name: /Start gauge/ }).press("Enter");
    await expect(page.getByRole("button", { name: "Stop the gauge" })).toBeVisible({ timeout: 1500 });
  }).toPass();
  await expect(page.getByRole("button", { name: "Record 30 readings" })).toBeVisible({ timeout: 40_000 });
  await expect(page.getByRole("button", { name: /Start gauge/ })).toBeDisabled();
  await expect(page.getByText(/Accept the film|Hold for a lead/)).toBeVisible();
  await page.getByRole("button", { name: "Record 30 readings" }).press("Enter");
  await expect(page.getByText("30 readings recorded.")).toBeVisible();
});

test("by keys alone: a gauge that types, spot by spot, undone and recorded without a mouse", async ({ page }) => {
  test.setTimeout(90_000);
  await signIn(page, "tomasz");
  await page.goto(await emptyRack(page, "F102"));
  const typed = await page.evaluate(async () => (await fetch("/api/instruments/film-gauge-keys?mode=30")).text());
  const values = typed.split("\r").filter((v) => v !== "");
  expect(values).toHaveLength(30);
  await page.waitForLoadState("networkidle");
  await page.keyboard.press("/");
  for (const value of values) {
    await page.keyboard.type(value);
    await page.keyboard.press("Enter");
  }
  const record = page.getByRole("button", { name: "Record 30 readings" });
  await expect(record).toBeVisible();
  await page.getByRole("button", { name: "Undo last" }).focus();
  await page.keyboard.press("Enter");
  await read(page, "29");
  await page.keyboard.press("/");
  await page.keyboard.type(values[29] ?? "74");
  await page.keyboard.press("Enter");
  await record.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText("30 readings recorded.")).toBeVisible();
});

test("a batch is fetched through the same reader; a unit that jumps is asked once for the rest; a gauge gone silent keeps what came", async ({
  page,
}) => {
  test.setTimeout(90_000);
  await signIn(page, "tomasz");
  await page.goto(await emptyRack(page, "F103"));
  await expect(async () => {
    await page.getByRole("button", { name: "Fetch its batch" }).press("Enter");
    await expect(page.getByText("12 readings fetched.")).toBeVisible({ timeout: 2000 });
  }).toPass();
  await read(page, "12");
  // The stand-in changes its unit in the middle, as a gauge does whose button was pressed.
  await page.route("**/api/instruments/film-gauge", (route) =>
    route.continue({ url: `${route.request().url()}?mode=slip` }),
  );
  await page.getByRole("button", { name: /Start gauge/ }).press("Enter");
  await expect(page.getByText(/as if the gauge had changed to mil/)).toBeVisible();
  await page.waitForTimeout(600);
  await page.getByRole("button", { name: /^Take it as/ }).press("Enter");
  await expect(async () => {
    const question = page.getByRole("button", { name: /^Take it as/ });
    if (await question.isVisible()) await question.press("Enter");
    await expect(page.getByRole("button", { name: "Record 30 readings" })).toBeVisible({ timeout: 800 });
  }).toPass({ timeout: 30_000 });
  await page.unroute("**/api/instruments/film-gauge");
  await page.goto(await emptyRack(page, "F104"));
  await page.route("**/api/instruments/film-gauge", (route) =>
    route.continue({ url: `${route.request().url()}?mode=cut` }),
  );
  await expect(async () => {
    await page.getByRole("button", { name: /Start gauge/ }).press("Enter");
    await expect(page.getByText(/The gauge went silent after \d readings/)).toBeVisible({ timeout: 4000 });
  }).toPass();
  await page.reload();
  await expect(page.getByRole("button", { name: /Record \d+ readings/ })).toBeVisible();
});

test("film over time by powder and part; a customer's viewer has no such page", async ({ page }) => {
  await signIn(page, "ines");
  await page.goto("/test");
  await page.getByRole("link", { name: "Film over time" }).click();
  await page.waitForLoadState("networkidle");
  await choose(page.getByLabel("Powder"), /^GR-815/);
  await expect(page).toHaveURL(/powder=GR-815/);
  await choose(page.getByLabel("Part", { exact: true }), "Charger enclosure");
  await expect(page).toHaveURL(/powder=GR-815.*part=CHARGER-BOX|part=CHARGER-BOX.*powder=GR-815/);
  await expect(page.getByRole("region", { name: "Rack by rack" })).toBeVisible();
  await expect(page.getByText(/comes? out under/)).toBeVisible();
  await page.getByText("How sure that is").press("Enter");
  await expect(page.getByText(/^Ppk \d\.\d\d, 95 % between/)).toBeVisible();
  await page.context().clearCookies();
  await signIn(page, "otto");
  await page.goto("/test/film");
  await expect(page.getByRole("heading", { name: "Nothing here for you by that name" })).toBeVisible();
});
