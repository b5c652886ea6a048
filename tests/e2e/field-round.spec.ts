import { expect } from "@playwright/test";
import sharp from "sharp";
import { signIn, test } from "../support/browser";
import { rustPhoto, rustSceneOf } from "../support/rust-photo";

test.use({ viewport: { width: 390, height: 844 } });

test("a structure from elsewhere is put on record, its zones named, and walked on a phone: rust read from a photo, the report printed", async ({
  page,
}) => {
  test.setTimeout(120_000);
  await signIn(page, "bea");
  await page.goto("/field");
  await page.getByText("Put a structure on record").click();
  const make = page.locator("form").filter({ hasText: "Record the structure" });
  for (const [label, text] of [
    ["Short name (letters, digits, dashes)", "PH-1"],
    ["Name", "Gate by the weir"],
    ["Site", "Weir path"],
    ["Where they stand", "left bank"],
  ] as const)
    await make.getByLabel(label, { exact: true }).fill(text);
  await make.getByRole("combobox", { name: "Whose it is, where coated elsewhere" }).click();
  await page.getByRole("option", { name: "Saltmarsh Ferries" }).click();
  await make.getByRole("button", { name: "Record the structure" }).press("Enter");
  await expect(page.getByRole("heading", { name: "Gate by the weir" })).toBeVisible();
  await expect(page.getByText("coating of unknown origin")).toBeVisible();

  for (const [zone, kind] of [
    ["leg foot", "foot near the ground"],
    ["lee side", "sheltered, for comparison"],
  ] as const) {
    await page.getByRole("button", { name: "One more zone" }).press("Enter");
    const form = page.locator("form").filter({ hasText: "Put the zone on record" });
    await form.getByLabel("What it is called").fill(zone);
    await form.getByRole("combobox", { name: "What it is", exact: true }).click();
    await page.getByRole("option", { name: kind }).click();
    await form.getByRole("button", { name: "Put the zone on record" }).press("Enter");
    await expect(page.getByText(zone).first()).toBeVisible();
    await page.reload();
  }
  await page.getByRole("link", { name: "Walk the round" }).click();
  await expect(page.getByText("0 of 2 zones done")).toBeVisible();
  await page.getByRole("link", { name: "Begin with leg foot" }).click();
  await expect(page.getByRole("heading", { name: "leg foot", level: 1 })).toBeVisible();

  // The foot: its share read from a photo of which the truth is known.
  const photo = rustPhoto(rustSceneOf(9, { film: [236, 234, 226], rusted: 0.05, shadow: 0.3, glare: 0, stains: 0 }));
  const { width, height } = photo.picture;
  const buffer = await sharp(Buffer.from(photo.picture.rgba), { raw: { width, height, channels: 4 } })
    .png()
    .toBuffer();
  await page.getByRole("button", { name: "Measure on a photo" }).press("Enter");
  await page.getByLabel(/A photo of the zone/).setInputFiles({ name: "foot.png", mimeType: "image/png", buffer });
  await expect(page.getByText(/the machine reads/)).toBeVisible({ timeout: 30_000 });
  const said = Number(/reads ([\d.]+) %/.exec((await page.getByText(/the machine reads/).textContent()) ?? "")?.[1]);
  expect(Math.abs(said - 100 * photo.share)).toBeLessThan(1);
  await page.getByRole("button", { name: "Take this share" }).press("Enter");
  await expect(page.getByLabel("Rusted, % of the zone")).toHaveValue(said.toFixed(2));
  await page.getByLabel(/^Widths, mm/).fill("4 4.2 3.9 4.1 4 4.3");
  await expect(page.getByText(/rating 5/)).toBeVisible();
  await page.getByRole("button", { name: "Record this zone" }).press("Enter");

  // On to the next by itself; sound by eye, and the gloss beside it.
  await expect(page.getByRole("heading", { name: "lee side", level: 1 })).toBeVisible({ timeout: 20_000 });
  await expect(page.getByText("1 of 2 zones done")).toBeVisible();
  await page.getByRole("radio", { name: "Sound" }).press("Space");
  await page.getByRole("button", { name: "Record this zone" }).press("Enter");
  await expect(page.getByText("Every zone is done.")).toBeVisible();
  await expect(page.getByText("Everything is sent.")).toBeVisible({ timeout: 20_000 });
  await page.getByRole("link", { name: "See how it stands" }).click();
  await expect(page.getByRole("heading", { name: "Gate by the weir" })).toBeVisible({ timeout: 20_000 });
  await expect(page.getByText("Protection: failed somewhere")).toBeVisible();
  await expect(page.getByText("sound by eye, nothing measured")).toBeVisible();
  const report = await page.request.get("/api/structures/PH-1/report.pdf");
  expect(report.status()).toBe(200);
  expect((await report.body()).subarray(0, 5).toString()).toBe("%PDF-");
});
