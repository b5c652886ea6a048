import { expect } from "@playwright/test";
import { signIn, test } from "../support/browser";

// Files run in the order of their names: this one last, since it puts every rack of the day that the gauge read in question.
test("a gauge that fails its shim puts what it read in question, named on the rack", async ({ page }) => {
  await signIn(page, "tomasz");
  await page.goto("/test/gauges");
  await expect(async () => {
    await page.getByLabel("Three readings or more").first().fill("40 41 40");
    await expect(page.getByText(/of ±/).first()).toBeVisible({ timeout: 1000 });
  }).toPass();
  await page.getByLabel("Three readings or more").nth(1).fill("124.6 124.8 124.5");
  await page.getByRole("button", { name: "Record the check" }).press("Enter");
  await expect(page.getByText(/racks? in question/)).toBeVisible();
  await page.getByRole("status").getByRole("link").first().click();
  await expect(page.getByText(/read with a gauge that failed its shims/)).toBeVisible();
  await page.goto("/test/gauges");
  for (const [i, values] of ["51.2 51.3 51.1", "124.6 124.8 124.5"].entries())
    await expect(async () => {
      await page.getByLabel("Three readings or more").nth(i).fill(values);
      await expect(page.getByLabel("Three readings or more").nth(i)).toHaveValue(values, { timeout: 500 });
    }).toPass();
  await page.getByRole("button", { name: "Record the check" }).press("Enter");
  await expect(page.getByText("holds", { exact: true }).first()).toBeVisible();
});
