import { expect, type Page } from "@playwright/test";
import sharp from "sharp";
import { signIn, test } from "../support/browser";
import { creepPhoto, creepSceneOf } from "../support/creep-photo";
import { rustPhoto, rustSceneOf } from "../support/rust-photo";

test.use({ viewport: { width: 390, height: 844 } });

type Shown = { readonly picture: { width: number; height: number; rgba: Uint8ClampedArray } };
const jpeg = ({ picture: { width, height, rgba } }: Shown): Promise<Buffer> =>
  sharp(Buffer.from(rgba), { raw: { width, height, channels: 4 } })
    .jpeg({ quality: 92 })
    .toBuffer();
/** A finger put down and lifted on a place of the photo, 0–1. */
async function tap(page: Page, at: readonly [number, number]): Promise<void> {
  const canvas = page.getByLabel(/^The photo: tap/);
  await canvas.scrollIntoViewIfNeeded();
  const box = await canvas.boundingBox();
  if (!box) throw new Error("no photo to tap on");
  await page.mouse.move(box.x + at[0] * box.width, box.y + at[1] * box.height);
  await page.mouse.down();
  await page.mouse.up();
}

test("twelve zones are walked with no network, photos measured among them, the page closed in between; sent once when there is one, and reported", async ({
  page,
  context,
}) => {
  test.setTimeout(240_000);
  await signIn(page, "bea");
  await page.goto("/field");
  await page.getByText("Put a structure on record").click();
  const make = page.locator("form").filter({ hasText: "Record the structure" });
  for (const [label, text] of [
    ["Short name (letters, digits, dashes)", "NET-12"],
    ["Name", "Gantry past the tunnel"],
    ["Site", "Tunnel mouth"],
    ["Where they stand", "far side"],
  ] as const)
    await make.getByLabel(label, { exact: true }).fill(text);
  await make.getByRole("combobox", { name: "Whose it is, where coated elsewhere" }).click();
  await page.getByRole("option", { name: "Saltmarsh Ferries" }).click();
  await make.getByRole("button", { name: "Record the structure" }).press("Enter");
  await expect(page.getByRole("heading", { name: "Gantry past the tunnel" })).toBeVisible();
  const zones = Array.from({ length: 12 }, (_, i) => `bay ${i + 1}`);
  for (const zone of zones) {
    await page.getByRole("button", { name: "One more zone" }).press("Enter");
    const form = page.locator("form").filter({ hasText: "Put the zone on record" });
    await form.getByLabel("What it is called").fill(zone);
    await form.getByRole("button", { name: "Put the zone on record" }).press("Enter");
    await expect(page.getByLabel("Zones", { exact: true }).getByText(zone, { exact: true })).toBeVisible();
    await page.reload();
  }
  await page.getByRole("link", { name: "Walk the round" }).click();
  await expect(page.getByText("0 of 12 zones done")).toBeVisible();
  await page.evaluate(() => navigator.serviceWorker.ready);
  // All that the page is made of lies on the device before the network goes.
  await expect(async () => {
    const kept = await page.evaluate(async () => {
      const all = await Promise.all((await caches.keys()).map(async (name) => (await caches.open(name)).keys()));
      return all.flat().map((r) => new URL(r.url).pathname);
    });
    expect(kept).toContain("/round");
    expect(kept.length).toBeGreaterThan(50);
  }).toPass();

  await context.setOffline(true);
  await page.reload();
  await page.getByRole("link", { name: "Begin with bay 1", exact: true }).click();
  for (const zone of zones) {
    await expect(page.getByRole("heading", { name: zone, level: 1, exact: true })).toBeVisible();
    if (zone === "bay 3") {
      const shot = creepPhoto(creepSceneOf(8, { creepMm: 3, looseMm: 1.5, film: [40, 90, 60], shadow: 0.3, glare: 0 }));
      const { width, height } = shot.picture;
      await page.getByRole("button", { name: "Measure on a photo" }).press("Enter");
      await page.getByRole("radio", { name: "Creep", exact: true }).press("Space");
      const file = { name: "scribe.jpg", mimeType: "image/jpeg", buffer: await jpeg(shot) };
      await page.getByLabel(/A photo of the scribe/).setInputFiles(file);
      await expect(page.getByText(/The card is found/)).toBeVisible({ timeout: 30_000 });
      for (const end of shot.scribe) {
        const [x, y] = shot.seen(end);
        await tap(page, [x / width, y / height]);
      }
      const read = page.locator("p").filter({ hasText: /mean width that rusts/ });
      await expect(read).toBeVisible({ timeout: 30_000 });
      const mm = Number(/rusts\s*([\d.]+)/.exec((await read.textContent()) ?? "")?.[1]);
      expect(Math.abs(mm - shot.rustedMm) / 2).toBeLessThan(0.2);
      await page.getByRole("button", { name: "Take these widths" }).press("Enter");
      await expect(page.getByLabel("Widths, mm, 6 or more")).not.toHaveValue("");
    } else if (zone === "bay 5") {
      const shot = rustPhoto(rustSceneOf(9, { film: [236, 234, 226], rusted: 0.05, shadow: 0.3, glare: 0, stains: 0 }));
      await page.getByRole("button", { name: "Measure on a photo" }).press("Enter");
      const file = { name: "bay.jpg", mimeType: "image/jpeg", buffer: await jpeg(shot) };
      await page.getByLabel(/A photo of the zone/).setInputFiles(file);
      await page.getByRole("button", { name: "Take this share" }).press("Enter");
      await expect(page.getByLabel("Rusted, % of the zone")).not.toHaveValue("");
    } else if (zone === "bay 7") {
      await page.getByRole("button", { name: "A flake, lifted and turned over" }).press("Enter");
      await page.getByRole("combobox", { name: "On its back" }).click();
      await page.getByRole("option", { name: "blue-grey scale" }).click();
      await page.getByLabel("Bag number").fill("F-7");
    } else await page.getByRole("radio", { name: "Sound" }).press("Space");
    await page.getByRole("button", { name: "Record this zone" }).press("Enter");
    if (zone === "bay 8") {
      // The page is closed in the middle of it, and opened again: what was captured is there.
      await expect(page.getByText("8 captures not sent")).toBeVisible();
      await page.goto("about:blank");
      await page.goto("/round#NET-12");
      await expect(page.getByText("8 of 12 zones done")).toBeVisible();
      await page.getByRole("link", { name: "Go on with bay 9" }).click();
    }
  }
  await expect(page.getByText("Every zone is done.")).toBeVisible();
  await expect(page.getByText("12 captures not sent")).toBeVisible();
  await expect(page.getByText(/No network: this device keeps them/)).toBeVisible();

  await context.setOffline(false);
  await expect(page.getByText("Everything is sent.")).toBeVisible({ timeout: 60_000 });
  await page.getByRole("link", { name: "See how it stands" }).click();
  await expect(page.getByText("Bea Nandy, 12 zones")).toHaveCount(1);
  await expect(page.getByText("Protection: failed somewhere")).toBeVisible();
  const report = await page.request.get("/api/structures/NET-12/report.pdf");
  expect(report.status()).toBe(200);
  expect((await report.body()).subarray(0, 5).toString()).toBe("%PDF-");
  expect((await page.request.get("/api/field/card.pdf")).status()).toBe(200);
});

test("signed out while captures wait: they wait, are said on every page, and are sent once their person is back", async ({
  page,
  context,
}) => {
  test.setTimeout(120_000);
  await signIn(page, "bea");
  await page.goto("/round");
  await page.getByRole("link", { name: "Walk it" }).first().click();
  await page.getByRole("link", { name: /^(Begin|Go on) with/ }).click();
  await context.clearCookies({ name: /session/ });
  await page.getByRole("radio", { name: "Sound" }).press("Space");
  await page.getByRole("button", { name: "Record this zone" }).press("Enter");
  await expect(page.getByText("1 capture not sent")).toBeVisible();
  await expect(page.getByRole("link", { name: "Sign in and send" })).toBeVisible();
  // Somebody else on the same device sends nothing of theirs.
  await signIn(page, "tomasz");
  await page.goto("/field");
  await page.getByRole("link", { name: "1 capture on this device not sent" }).click();
  await expect(page.getByText(/bea captured this on this device/)).toBeVisible({ timeout: 30_000 });
  await signIn(page, "bea");
  await page.goto("/round");
  await expect(page.getByText("Everything is sent.")).toBeVisible({ timeout: 30_000 });
});

test("a browser that keeps nothing says so, and sends each zone as it is recorded", async ({ page }) => {
  test.setTimeout(120_000);
  await page.addInitScript(() => {
    Object.defineProperty(window, "indexedDB", {
      value: {
        open: () => {
          throw new DOMException("refused", "SecurityError");
        },
      },
    });
  });
  await signIn(page, "tomasz");
  await page.goto("/round");
  await expect(page.getByText(/This browser keeps nothing/)).toBeVisible();
  await page.getByRole("link", { name: "Walk it" }).first().click();
  await page.getByRole("link", { name: /^(Begin|Go on) with/ }).click();
  const zone = await page.getByRole("heading", { level: 1 }).textContent();
  await page.getByRole("radio", { name: "Sound" }).press("Space");
  await page.getByRole("button", { name: "Record this zone" }).press("Enter");
  await expect(page.getByRole("heading", { level: 1 })).not.toHaveText(zone ?? "");
  await expect(page.getByText(/1 of \d+ zones done/)).toBeVisible();
});
