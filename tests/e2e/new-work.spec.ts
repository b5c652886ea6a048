import { expect } from "@playwright/test";
import { signIn, test } from "../support/browser";

test("a job is taken in, a rack hung, washed by key, its trace taken from the recorder, and put up in the field", async ({
  page,
}) => {
  test.setTimeout(90_000);
  await signIn(page, "ines");
  await page.goto("/plan");
  await page.getByText("Take a job in").click();
  await page.getByLabel("Job number").fill("J-900");
  await page.getByLabel("Part", { exact: true }).selectOption({ label: "Landing-stage seat" });
  await page.getByLabel("Powder", { exact: true }).selectOption({ label: "GR-505 Gorse yellow" });
  await page.getByLabel(/Film, least or nominal/).fill("90");
  await page.getByLabel(/Film, most/).fill("60");
  await page.getByLabel("Offered beyond it", { exact: false }).fill("Zinc barrier primer");
  await page.getByLabel("Risk, in plain words").fill("creep after knocks");
  await page.getByRole("button", { name: "Record the job" }).click();
  await expect(page.getByText("must be a range over 0 (got 90 to 60 µm)")).toBeVisible();
  await page.getByLabel(/Film, least or nominal/).fill("60");
  await page.getByLabel(/Film, most/).fill("90");
  await page.getByRole("button", { name: "Record the job" }).click();
  await expect(page.getByRole("heading", { name: "Job J-900, landing-stage seat" })).toBeVisible();
  await expect(page.getByText("Declined")).toBeVisible();

  await page.getByText("Hang a rack").click();
  await page.getByLabel("Number on its tag").fill("0942");
  await page.getByLabel("Pieces", { exact: true }).fill("4");
  await page.getByRole("button", { name: "Record the rack" }).click();
  await expect(page.getByText("There is already a rack 0942")).toBeVisible();
  await page.getByLabel("Number on its tag").fill("2001");
  await page.getByRole("button", { name: "Record the rack" }).click();
  await expect(page.getByRole("heading", { name: "Rack 2001, landing-stage seat" })).toBeVisible();
  await expect(page.getByText("Not all known")).toBeVisible();

  for (const stage of ["blast", "conversion", "rinse", "booth"]) {
    await page.keyboard.press("/");
    await page.keyboard.type(`rack 2001 in ${stage}`);
    await page.keyboard.press("Enter");
    await expect(page.locator("#entry-said")).toHaveText("Recorded.");
    await page.keyboard.press("Escape");
  }
  await page.goto("/coat");
  await expect(page.getByRole("link", { name: /2001/ }).first()).toBeVisible();

  await page.goto("/records/import");
  await page.getByRole("button", { name: "Take it from the oven recorder" }).click();
  await expect(page.getByText("Understood as an oven trace")).toBeVisible();
  await page.getByLabel("For rack").fill("2001");
  await page.getByLabel("Trace began").fill("2026-11-01T08:00");
  await page.getByRole("button", { name: "Store all of it" }).click();
  await expect(page.getByText("samples stored.")).toBeVisible();
  await page.goto("/racks/2001/cure");
  await expect(page.getByText(/Lowest index, on Thick/)).toBeVisible();

  await page.goto("/field");
  await page.getByText("Put a structure on record").click();
  await page.getByLabel(/Short name/).fill("QUAY-GATE");
  await page.getByLabel("Name", { exact: true }).fill("Quay gate seats");
  await page.getByLabel("Site").fill("Saltmarsh landing");
  await page.getByLabel(/Made of the pieces of rack/).fill("2001");
  await page.getByLabel("Where they stand").fill("gate");
  await page.getByLabel("salt").check();
  await page.getByRole("button", { name: "Record the structure" }).click();
  await expect(page.getByRole("heading", { name: "Quay gate seats" })).toBeVisible();
  await expect(page.getByText("4 pieces from rack 2001")).toBeVisible();

  // Two defects in two zones, each with a case of its own.
  for (const [defect, zone] of [
    ["Seam rust", "seam, left"],
    ["Rust creep", "leg foot"],
  ] as const) {
    await page.getByLabel("Defect", { exact: true }).selectOption({ label: defect });
    await page.getByLabel("Where it sits").fill(zone);
    await page.getByRole("button", { name: "Record defect" }).click();
    await expect(page.getByText(zone, { exact: false }).first()).toBeVisible();
  }
  await page.getByRole("button", { name: "Trace its cause" }).first().click();
  await expect(page).toHaveURL(/causes\/\d+/);
  await expect(page.getByText("What the record says")).toBeVisible();
});

test("a film set is corrected: the old one stays, superseded with its reason", async ({ page }) => {
  await signIn(page, "bea");
  await page.goto("/racks/0870/thickness");
  await page.getByRole("button", { name: /Correct the set/ }).click();
  await page.getByText("leave one out").click();
  await page.getByLabel("Reading 1: keep or leave out").selectOption("too near an edge");
  await page.getByLabel("Why it is corrected").fill("first reading lay on the edge");
  await page.getByRole("button", { name: /Record 30 readings/ }).click();
  await expect(page.getByText("Corrected; the old set stays on record.")).toBeVisible();
  await expect(page.getByText("29 of 30")).toBeVisible();
  await page.goto("/racks/0870");
  await expect(page.getByText("first reading lay on the edge")).toBeVisible();
});
