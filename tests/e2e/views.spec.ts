import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { signIn } from "../support/browser";

const views = [
  "/",
  "/plan",
  "/plan/receive",
  "/plan/calendar",
  "/plan/parts",
  "/jobs/J-421/system",
  "/jobs/J-421/options",
  "/jobs/J-421/fit",
  "/jobs/J-421/cost",
  "/jobs/J-421/route-card",
  "/prepare",
  "/pretreat",
  "/pretreat/tank-3",
  "/pretreat/tank-3/history?value=ph&against=concentration",
  "/pretreat/round",
  "/pretreat/set-up",
  "/pretreat/tank-3/set-up",
  "/coat",
  "/coat/powders",
  "/cure",
  "/cure/planner",
  "/cure/conveyor",
  "/cure/ovens",
  "/cure/ovens/oven-1",
  "/cure/ovens/oven-1/set-up",
  "/cure/proof",
  "/cure/loads/oven-1/485",
  "/cure/loads/oven-1/m-4",
  "/test",
  "/test/film",
  "/upkeep",
  "/release",
  "/field",
  "/field/jetty-a",
  "/causes",
  "/causes/29",
  "/records",
  "/records/import",
  "/racks/0869",
  "/racks/0869/prepare",
  "/racks/0869/coat",
  "/racks/0869/thickness",
  "/racks/0869/cure",
  "/racks/0869/bench",
  "/racks/0869/release",
  "/jobs/J-408",
];

for (const theme of ["light", "dark"]) {
  test(`axe finds nothing on any view, ${theme}`, async ({ page, context, baseURL }) => {
    test.setTimeout(300_000);
    await context.addCookies([{ name: "theme", value: theme, url: baseURL ?? "" }]);
    await page.goto("/sign-in");
    const violations: string[] = [];
    const check = async (path: string) => {
      // The dark theme is the same page in other colours: of the rules only those of contrast can tell them apart.
      const rules =
        theme === "light"
          ? new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"])
          : new AxeBuilder({ page }).withRules(["color-contrast", "link-in-text-block"]);
      const { violations: found } = await rules.analyze();
      for (const v of found)
        violations.push(
          `${path}: ${v.id} ${v.nodes
            .slice(0, 3)
            .map((n) => `${n.target} ${n.failureSummary?.split("\n")[1] ?? ""}`)
            .join(" | ")}`,
        );
    };
    await check("/sign-in");
    await signIn(page, "ines");
    for (const path of views) {
      await page.goto(path);
      await expect(page.locator("h1").first()).toBeVisible();
      await check(path);
    }
    expect(violations).toEqual([]);
  });
}

test("at tablet size nothing is wider than the screen, and targets are large enough", async ({ page }) => {
  test.setTimeout(120_000);
  await page.setViewportSize({ width: 820, height: 1180 });
  await signIn(page, "ines");
  for (const path of views) {
    await page.goto(path);
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(820);
    const small = await page
      .locator("main .btn, main .input")
      .evaluateAll((els) =>
        els
          .filter((e) => e.getClientRects().length > 0 && e.getBoundingClientRect().height < 43.5)
          .map((e) => e.outerHTML.slice(0, 80)),
      );
    expect(small, path).toEqual([]);
    await expect(page.locator(".margin-handle"), path).toBeInViewport({ ratio: 1 });
  }
});

test("on a tablet the margin is a sheet from below, and the entry line has a number pad", async ({ page }) => {
  await page.setViewportSize({ width: 820, height: 1180 });
  await signIn(page, "tomasz");
  await page.goto("/pretreat/tank-3");
  const record = page.getByRole("button", { name: "Record round" });
  await expect(record).toBeHidden();
  const handle = page.getByRole("button", { name: /Log a check/ });
  expect((await handle.boundingBox())?.height).toBeGreaterThanOrEqual(44);
  await expect(handle).toBeInViewport({ ratio: 1 });
  await handle.click();
  await expect(record).toBeVisible();
  await page.getByLabel("pH", { exact: true }).fill("5.4");
  await handle.click();
  await expect(record).toBeHidden();
  await handle.click();
  await expect(page.getByLabel("pH", { exact: true })).toHaveValue("5.4");
  await page.getByRole("button", { name: "123" }).click();
  await expect(page.getByLabel("Entry line")).toHaveAttribute("inputmode", "decimal");
  await expect(page.getByLabel("Entry line")).toBeFocused();
});

test("units and theme are each person's own, at once and after a reload", async ({ page }) => {
  await signIn(page, "tomasz");
  await page.goto("/racks/0869/thickness");
  await expect(page.getByText("60.0 µm to 90.0 µm")).toBeVisible();
  await page.getByRole("button", { name: /choices/ }).click();
  await page.getByRole("menuitem", { name: /Units/ }).click();
  await expect(page.getByText("2.36 mil to 3.54 mil")).toBeVisible();
  await page.getByRole("button", { name: /choices/ }).click();
  await page.getByRole("menuitem", { name: /Theme/ }).click();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "dark");
  await page.reload();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "dark");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
});
