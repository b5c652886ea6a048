import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";
import { signIn, test } from "../support/browser";
import { unreadable } from "../support/charts";

/** A load of the line’s own, whatever number it has: the one that rack 0869 rode in. */
const LOAD_OF_LINE = "the load of rack 0869";
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
  LOAD_OF_LINE,
  "/cure/loads/oven-1/m-4",
  "/cure/loads/lamps-1/k-1",
  "/racks",
  "/racks?stage=release&page=1",
  "/test",
  "/test/film",
  "/test/panels",
  "/upkeep",
  "/shop",
  "/shop/customers",
  "/shop/instruments",
  "/shop/equipment",
  "/shop/equipment/BOOTH",
  "/shop/rates",
  "/shop/schools",
  "/shop/backup",
  "/shop/begin",
  "/records/export",
  "/causes/complaints/new",
  "/plan/parts/SHELTER-POST",
  "/shop/password",
  "/release",
  "/release/yield?days=365&by=defect&of=orange-peel",
  "/field",
  "/field/jetty-a",
  "/field/jetty-a/site",
  "/field/contrast",
  "/round",
  "/round#S-114",
  "/round#S-114/leg%20foot",
  "/field/ageing",
  "/field/s-101",
  "/release/yield/map",
  "/shop/test-plans",
  "/causes",
  "/causes/29",
  "/causes/29/report",
  "/causes/atlas",
  "/causes/contrast?defect=adhesion-loss",
  "/causes/knowledge?defect=rust-creep",
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

const DESK = { width: 1280, height: 800 };
const TABLET = { width: 820, height: 1180 };
const PHONE = { width: 390, height: 844 };
const ruleTags = ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"];

/** What axe finds on a page as it stands, in a line each. */
async function violationsOn(page: Page, path: string, theme: "light" | "dark"): Promise<string[]> {
  // No view has a frame of another page in it: all is done in the page, without one opened for the sum of frames.
  // The dark theme is the same page in other colours: of the rules only those of contrast can tell them apart.
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({
      runOnly:
        theme === "light"
          ? { type: "tag", values: ruleTags }
          : { type: "rule", values: ["color-contrast", "link-in-text-block"] },
      // What is in order is not told of node by node, which takes as long as the looking.
      resultTypes: ["violations"],
    })
    .analyze();
  return violations.map(
    (v) =>
      `${path}, ${theme}: ${v.id} ${v.nodes
        .slice(0, 3)
        .map((n) => `${n.target} ${n.failureSummary?.split("\n")[1] ?? ""}`)
        .join(" | ")}`,
  );
}

/** The theme is one attribute on the page: it is changed in place, since every view is loaded once only. */
const wear = (page: Page, theme: "light" | "dark") =>
  page.evaluate((name) => document.documentElement.setAttribute("data-theme", name), theme);

// In parts, so that what fails is found soon and one slow part is no time-out of the whole.
const PART = 12;
for (let from = 0; from < views.length; from += PART) {
  const part = views.slice(from, from + PART);
  test(`axe finds nothing in either theme, and a tablet holds it: ${part[0]} to ${part.at(-1)}`, async ({ page }) => {
    test.setTimeout(240_000);
    await signIn(page, "ines");
    const found: string[] = [];
    for (const named of part) {
      let path = named;
      await page.setViewportSize(DESK);
      if (named === LOAD_OF_LINE) {
        await page.goto("/racks/0869/cure");
        path = (await page.locator('main a[href^="/cure/loads/"]').first().getAttribute("href")) ?? "";
      }
      await page.goto(path);
      await expect(page.locator("h1").first()).toBeVisible();
      expect.soft(await unreadable(page), path).toEqual([]);
      await wear(page, "light");
      found.push(...(await violationsOn(page, path, "light")));
      await wear(page, "dark");
      found.push(...(await violationsOn(page, path, "dark")));
      await page.setViewportSize(TABLET);
      expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(820);
      const small = await page
        .locator(
          "main .btn, main .input, main nav a, main .fold, main label:has(.tick), main button:not(.tick, .dot, [aria-roledescription])",
        )
        .evaluateAll((els) =>
          els
            .filter((e) => e.getClientRects().length > 0 && e.getBoundingClientRect().height < 43.5)
            .map((e) => e.outerHTML.slice(0, 80)),
        );
      expect(small, path).toEqual([]);
      // The round is a page of its own, for one hand: what is beside others stands in it.
      if (!path.startsWith("/round")) await expect(page.locator(".margin-handle"), path).toBeInViewport({ ratio: 1 });
      await page.setViewportSize(PHONE);
      expect
        .soft(await page.evaluate(() => document.documentElement.scrollWidth), `${path}, phone`)
        .toBeLessThanOrEqual(390);
      expect.soft(await unreadable(page), `${path}, phone`).toEqual([]);
      // In the other units figures and their names are longer.
      await page.context().addCookies([{ name: "units", value: "us", url: page.url() }]);
      await page.reload();
      await expect(page.locator("h1").first()).toBeVisible();
      for (const size of [PHONE, TABLET]) {
        await page.setViewportSize(size);
        expect
          .soft(await page.evaluate(() => document.documentElement.scrollWidth), `${path}, US units`)
          .toBeLessThanOrEqual(size.width);
        expect.soft(await unreadable(page), `${path}, US units`).toEqual([]);
      }
      await page.context().clearCookies({ name: "units" });
    }
    expect(found).toEqual([]);
  });
}

test("axe finds nothing on the way in, in either theme", async ({ page }) => {
  await page.goto("/sign-in");
  for (const theme of ["light", "dark"] as const) {
    await wear(page, theme);
    expect(await violationsOn(page, "/sign-in", theme)).toEqual([]);
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
  // The page may still be taking over its markup: pressed until it opens.
  await expect(async () => {
    await page.keyboard.press("?");
    await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible({ timeout: 1000 });
  }).toPass();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
});
