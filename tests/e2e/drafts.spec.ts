import { expect, type Page } from "@playwright/test";
import { signIn, signInByForm, test } from "../support/browser";

type Filled = readonly { readonly key: string; readonly value: string }[];

/** Opens whatever is folded on the page, the folds within folds too. */
async function unfold(page: Page): Promise<void> {
  for (let depth = 0; depth < 3; depth++) {
    const opened = await page.evaluate(() => {
      const shut = [...document.querySelectorAll<HTMLElement>('[data-fold] > button[aria-expanded="false"]')];
      for (const button of shut) button.click();
      return shut.length;
    });
    if (opened === 0) return;
    await page.waitForTimeout(50);
  }
}

/** Every field of every form that records something, by form and name; filled where `fill` says so. */
const fields = (page: Page, fill: boolean): Promise<Filled> =>
  page.evaluate((fill) => {
    const out: { key: string; value: string }[] = [];
    const forms = [...document.querySelectorAll<HTMLFormElement>("main form, aside form")].filter(
      (f) => !f.getAttribute("action") && !f.querySelector("#entry-line"),
    );
    const seen = new Map<string, number>();
    const put = (field: HTMLInputElement | HTMLTextAreaElement, text: string) => {
      const prototype = field instanceof HTMLTextAreaElement ? HTMLTextAreaElement : HTMLInputElement;
      Object.getOwnPropertyDescriptor(prototype.prototype, "value")?.set?.call(field, text);
      field.dispatchEvent(new Event("input", { bubbles: true }));
    };
    for (const form of forms) {
      const heading = form.querySelector("button[type=submit]")?.textContent?.trim() ?? "";
      for (const field of form.querySelectorAll<HTMLInputElement | HTMLTextAreaElement>("input, textarea")) {
        if (/^(file|password|hidden|checkbox|radio)$/.test(field.type) || field.ariaHidden === "true") continue;
        if (field.readOnly || field.disabled || field.offsetParent === null) continue;
        const name = `${heading} | ${field.id || field.name || field.ariaLabel}`;
        const n = seen.get(name) ?? 0;
        seen.set(name, n + 1);
        if (fill) {
          const number = field.type === "number" || field.inputMode === "decimal";
          const text = field.type === "date" ? "2026-12-24" : number ? "3" : `kept ${out.length}`;
          put(field, field.maxLength > 0 ? text.slice(0, field.maxLength) : text);
        }
        out.push({ key: `${name} #${n}`, value: field.value });
      }
    }
    return out;
  }, fill);

async function found(page: Page, path: string, filled: Filled, way: string): Promise<void> {
  await unfold(page);
  await expect(async () => {
    const now = new Map((await fields(page, false)).map((f) => [f.key, f.value]));
    for (const { key, value } of filled) expect(now.get(key), `${path}, ${way}: ${key}`).toBe(value);
  }).toPass({ timeout: 8000 });
}

const pages = [
  "/pretreat/round",
  "/pretreat/tank-3",
  "/pretreat/tank-3/set-up",
  "/pretreat/set-up",
  "/pretreat",
  "/upkeep",
  "/shop",
  "/shop/rates",
  "/shop/schools",
  "/causes/complaints/new",
  "/shop/customers",
  "/shop/equipment",
  "/shop/equipment/BOOTH",
  "/shop/instruments",
  "/coat/powders",
  "/coat/sheets",
  "/plan/receive",
  "/jobs/J-423/options",
  "/jobs/J-410",
  "/racks/1050/prepare",
  "/racks/1050/coat",
  "/racks/1042/bench",
  "/racks/1041/release",
  "/racks/1042/thickness",
  "/cure",
  "/cure/ovens/oven-1",
  "/cure/ovens/oven-1/set-up",
  "/cure/proof",
  "/causes/29",
  "/field/jetty-a",
  "/field",
  "/test/gauges",
];

for (const half of [0, 1])
  test(`what is typed is there again, form by form, whichever way the page is left: ${half + 1} of 2`, async ({
    page,
    context,
  }) => {
    test.setTimeout(240_000);
    await signIn(page, "ines");
    const filled = new Map<string, Filled>();
    let count = 0;
    for (const path of pages.filter((_, i) => i % 2 === half)) {
      await page.goto(path);
      await unfold(page);
      await fields(page, true);
      // What a first field brings out is not asked for; what stands once all are filled is.
      const stands = await fields(page, false);
      filled.set(path, stands);
      count += stands.length;
      expect(stands.length, path).toBeGreaterThan(0);
      await page.getByRole("link", { name: "Shift" }).or(page.locator('a[href="/"]')).first().click();
      await expect(page.getByRole("heading", { name: "What needs a hand now" })).toBeVisible();
      await page.goBack();
      await found(page, path, stands, "by the rail, and back");
      await expect(page.getByText(/is here again, not recorded yet/).first()).toBeVisible();
      await page.reload();
      await found(page, path, stands, "made anew");
    }
    expect(count).toBeGreaterThan(60);
    await page.evaluate(() => navigator.serviceWorker.ready);
    await context.setOffline(true);
    await page.goto("/plan");
    await expect(page.getByRole("heading", { name: "No network" })).toBeVisible();
    await context.setOffline(false);
    await context.clearCookies({ name: /session/ });
    for (const [i, [path, stands]] of [...filled].entries()) {
      await page.goto(path);
      if (i === 0) {
        await expect(page).toHaveURL(/sign-in/);
        await signInByForm(page, "ines");
        await page.goto(path);
      }
      await found(page, path, stands, "with the session ended");
    }
    // Dropped, it is as it began.
    await page.getByRole("button", { name: "Start anew" }).first().click();
    const dropped = page.getByText(/is here again, not recorded yet/);
    const before = await dropped.count();
    await page.reload();
    await unfold(page);
    await expect(dropped).toHaveCount(before);
  });

test("what was typed under a fold opens it, and those around it", async ({ page }) => {
  await signIn(page, "ines");
  await page.goto("/coat/powders");
  const named = page
    .locator("[data-fold]")
    .filter({ hasText: "GR-340" })
    .filter({ has: page.getByText("Change the sheet") })
    .first();
  await named.locator("> button").click();
  await named.getByRole("button", { name: "Change the sheet" }).click();
  const why = named.getByLabel("Why it changes");
  await why.fill("a new sheet came");
  await page.getByRole("button", { name: "Put a new powder on record" }).click();
  await page.getByRole("textbox", { name: "Chemistry" }).last().fill("super-durable");
  await page.reload();
  await expect(why).toBeVisible();
  await expect(why).toHaveValue("a new sheet came");
  await expect(page.getByRole("textbox", { name: "Chemistry" }).last()).toBeVisible();
  await expect(page.getByText(/is here again, not recorded yet/)).toHaveCount(2);
  await page.getByRole("button", { name: "Start anew" }).first().click();
  await expect(why).toHaveValue("");
});

test("nobody sees what another person typed", async ({ page, context }) => {
  await signIn(page, "ines");
  await page.goto("/field/jetty-a");
  await page.getByLabel("Zone", { exact: true }).fill("bay 3, mine");
  await context.clearCookies({ name: /session/ });
  await signInByForm(page, "bea");
  await page.goto("/field/jetty-a");
  await expect(page.getByLabel("Zone", { exact: true })).toHaveValue("");
  await context.clearCookies({ name: /session/ });
  await signInByForm(page, "ines");
  await page.goto("/field/jetty-a");
  await expect(page.getByLabel("Zone", { exact: true })).toHaveValue("bay 3, mine");
});
