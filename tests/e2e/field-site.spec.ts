import { expect } from "@playwright/test";
import { signIn, test } from "../support/browser";

test("a site is drawn by tapping, its structures placed, undone and recorded; a structure's codes, calendar and day of coating are a step away", async ({
  page,
}) => {
  await signIn(page, "bea");
  await page.goto("/field");
  await page.getByRole("link", { name: /^Notice frame 1/ }).click();
  await page.getByRole("link", { name: "Pinnock glasshouses", exact: true }).click();
  await expect(page.getByText("No plan is drawn yet: draw it below.")).toBeVisible();
  const plan = page.getByLabel("The plan: tap to draw, place or write");
  const tap = async (x: number, y: number) => {
    await plan.scrollIntoViewIfNeeded();
    const box = await plan.boundingBox();
    if (!box) throw new Error("no plan");
    await page.mouse.click(box.x + x * box.width, box.y + y * box.height);
  };
  await tap(0.1, 0.5);
  await tap(0.9, 0.5);
  await page.getByRole("button", { name: "End this line" }).press("Enter");
  await expect(plan.locator("polyline")).toHaveCount(1);
  await page.getByRole("radio", { name: "places a structure" }).press("Space");
  await tap(0.3, 0.3);
  await tap(0.5, 0.3);
  await expect(plan.getByText(/Notice frame/)).toHaveCount(2);
  await page.getByRole("button", { name: "Undo", exact: true }).press("Enter");
  await expect(plan.getByText(/Notice frame/)).toHaveCount(1);
  await page.getByRole("button", { name: "Record the plan" }).press("Enter");
  await expect(page.getByText(/Drawn by Bea Nandy/)).toBeVisible();
  const drawn = page.getByRole("group", { name: "Plan of Pinnock glasshouses" });
  await expect(drawn.getByText(/Notice frame/)).toHaveCount(1);
  await expect(page.getByText(/1 placed/)).toBeVisible();

  await page.goto("/field/jetty-a");
  const day = page.getByRole("region", { name: "The day it was coated" });
  await expect(day.getByText("Rack 0869")).toBeVisible();
  await expect(day.getByText(/load \d+ in/)).toBeVisible();
  const codes = await page.request.get("/api/labels.pdf?of=structure&number=JETTY-A");
  expect(codes.status()).toBe(200);
  expect((await page.request.get("/api/labels.pdf?of=structure&number=NO-SUCH")).status()).toBe(404);
  const calendar = await page.request.get("/api/field/visits.ics");
  expect(await calendar.text()).toContain("look at Notice frame 1");
});
