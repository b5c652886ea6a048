import { expect } from "@playwright/test";
import { now } from "../../src/server/now";
import { choose, localInput, signIn, test, traceOfRack } from "../support/browser";

test("a job is taken in, a rack hung, washed by key, its trace taken from the recorder, and put up in the field", async ({
  page,
}) => {
  test.setTimeout(90_000);
  await signIn(page, "ines");
  await page.goto("/plan/receive");
  await page.waitForLoadState("networkidle");
  await choose(page.getByLabel("Powder asked for"), "GR-505 Gorse yellow");
  await page.getByLabel("Customer’s order number").fill("PO 7781");
  await choose(page.getByLabel("A part already in the library"), "Landing-stage seat");
  await page.getByText("What is asked of it").click();
  await page.getByLabel("Least, µm").fill("90");
  await page.getByLabel("Most, µm").fill("60");
  await choose(page.getByLabel("Solvent rub, at least"), "grade 4");
  await page.getByLabel("Look asked for").fill("no runs on the seat");
  await page.getByRole("button", { name: "Receive it" }).click();
  await expect(page.getByText(/90 to 60 µm.* is no range/)).toBeVisible();
  await page.getByLabel("Least, µm").fill("60");
  await page.getByLabel("Most, µm").fill("90");
  await page.getByRole("button", { name: "Receive it" }).click();
  await page.waitForURL(/\/jobs\/J-\d+\/system/);
  await page.goto(page.url().replace("/system", ""));
  await expect(page.getByRole("heading", { name: /^Job J-\d+, landing-stage seat/ })).toBeVisible();
  await expect(page.getByText("PO 7781")).toBeVisible();
  await expect(page.getByText("grade 4 or better")).toBeVisible();
  await expect(page.getByText("no runs on the seat")).toBeVisible();

  await page.getByText("Hang a rack").click();
  await page.getByLabel("Number on its tag").fill("0942");
  // The next tag is offered; another may be typed.
  await page.getByLabel("Pieces", { exact: true }).fill("4");
  await page.getByRole("button", { name: "Record the rack" }).click();
  await expect(page.getByText("There is already a rack 0942")).toBeVisible();
  await page.getByLabel("Number on its tag").fill("2001");
  await page.getByRole("button", { name: "Record the rack" }).click();
  // More than is left of those ordered is asked about first.
  const anyway = page.getByRole("button", { name: "Hang it all the same" });
  const hung = page.getByRole("heading", { name: "Rack 2001, landing-stage seat" });
  await expect(anyway.or(hung).first()).toBeVisible();
  if (await anyway.isVisible()) await anyway.click();
  await expect(page.getByRole("heading", { name: "Rack 2001, landing-stage seat" })).toBeVisible();
  await expect(page.getByText("Not all known")).toBeVisible();

  // Two hours ago, so that it has had the time to be baked.
  await page.clock.setSystemTime(now().getTime() - 2 * 3_600_000);
  await page.reload();
  for (const stage of ["blast", "clean", "conversion", "rinse", "booth"]) {
    await page.keyboard.press("/");
    await page.keyboard.type(`rack 2001 in ${stage}`);
    await page.keyboard.press("Enter");
    await expect(page.locator("#entry-said")).toHaveText(/^Recorded/);
    await page.keyboard.press("Escape");
  }
  await page.goto("/coat");
  await expect(page.getByRole("link", { name: /2001/ }).first()).toBeVisible();
  await page.goto("/racks/2001/coat");
  await page.locator("#coat-kv").fill("70");
  await page.getByRole("button", { name: "Record coat" }).press("Enter");
  await expect(page.getByText("1 coat on record")).toBeVisible();
  await page.clock.setSystemTime(now());

  await page.goto("/records/import");
  await page.getByRole("button", { name: "Take it from the oven recorder" }).click();
  await expect(page.getByText("Understood as an oven trace")).toBeVisible();
  await traceOfRack(page, "2001");
  // Of a moment before its coat it is none of this rack's.
  await page.getByLabel("Trace began").fill(localInput(new Date(now().getTime() - 3 * 3_600_000)));
  await page.getByRole("button", { name: "Store all of it" }).click();
  await expect(page.getByText(/Its coat is on record at .*, after this bake began/)).toBeVisible();
  await page.getByLabel("Trace began").fill(localInput(new Date(now().getTime() - 3_600_000)));
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
    await choose(page.getByLabel("Defect", { exact: true }), defect);
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
  await choose(page.getByLabel("Reading 1: keep or leave out"), "too near an edge");
  await page.getByLabel("Why it is corrected").fill("first reading lay on the edge");
  await page.getByRole("button", { name: /Record 30 readings/ }).click();
  await expect(page.getByText("Corrected; the old set stays on record.")).toBeVisible();
  await expect(page.getByText("29 of 30")).toBeVisible();
  await page.goto("/racks/0870");
  await expect(page.getByText("first reading lay on the edge")).toBeVisible();
});
