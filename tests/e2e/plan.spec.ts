import { execFileSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";
import { choose, signIn, test } from "../support/browser";

const delivery = [
  ["Lamp head", "cast alu", "420x320x260", "8", "6.8", "0.62", "20"],
  ["Bench", "steel", "1800x450x450", "5", "22", "1.7", "6"],
  ["Gate leaf", "steel", "1200x60x1600", "5", "28", "2.1", "4"],
  ["Gate post", "steel", "100x100x2000", "6", "24", "0.8", "8"],
  ["Sign", "alu", "900x600x30", "3", "4.2", "1.12", "2"],
  ["Grille", "cast iron", "400x400x20", "12", "14", "0.33", "9"],
  ["Rail", "galvanised", "2400x60x900", "4", "19", "2.2", "5"],
  ["Cover", "sheet", "620x420x40", "2", "3.1", "0.54", "12"],
];

test("a delivery of eight parts without a mouse: at most twelve keystrokes a part beyond its own words and numbers", async ({
  page,
}) => {
  test.setTimeout(90_000);
  await signIn(page, "ines");
  await page.goto("/");
  await page.keyboard.press("/");
  await page.keyboard.type("receive");
  await expect(page.locator("#entry-said")).toContainText("Receive work");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Receive work" })).toBeVisible();
  let keys = 0;
  let own = 0;
  const press = async (key: string) => {
    await page.keyboard.press(key);
    keys++;
  };
  const parts = page.getByLabel(/Parts, one a line/);
  // Tab to the list of parts, as a hand would.
  for (let i = 0; i < 30 && !(await parts.evaluate((e) => e === document.activeElement)); i++) await press("Tab");
  await expect(parts).toBeFocused();
  for (const [i, part] of delivery.entries()) {
    const line = part.join(",");
    await page.keyboard.type(line, { delay: 0 });
    keys += line.length;
    own += part.join("").replaceAll("x", "").length;
    if (i < delivery.length - 1) await press("Enter");
  }
  const receive = page.getByRole("button", { name: "Receive 8 parts" });
  await expect(receive).toBeEnabled();
  await expect(page.getByRole("region", { name: "Grille" }).getByText("outgassed").first()).toBeVisible();
  // Back from the button's place in the form: one key submits from the due date, but not from a list of lines.
  for (let i = 0; i < 140 && !(await receive.evaluate((e) => e === document.activeElement)); i++) await press("Tab");
  await press("Enter");
  await expect(page).toHaveURL(/\/plan$/);
  for (const [name] of delivery) await expect(page.getByText(name as string, { exact: true }).first()).toBeVisible();
  expect((keys - own) / delivery.length).toBeLessThanOrEqual(12);
});

test("what cannot be is said as it is typed; what cannot work wants a reason", async ({ page }) => {
  await signIn(page, "ines");
  await page.goto("/plan/receive");
  const parts = page.getByLabel(/Parts, one a line/);
  await parts.fill("Bracket,oak,400x300x200,5");
  await expect(
    page.getByText("“oak” is not a metal, a size, a number or a word known in a part's line."),
  ).toBeVisible();
  await parts.fill("Bracket,steel,400x300x200,5,900");
  await expect(page.getByText(/900 kg is more than its whole box in metal/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Receive it" })).toBeDisabled();
  await parts.fill("Film prop,steel,400x300x200,5,9,0.5,2");
  await choose(page.getByLabel("Powder asked for"), "GR-120 Indoor white hybrid");
  await expect(page.getByText("An indoor hybrid chalks outdoors within a year or two")).toBeVisible();
  await expect(page.getByText("What cannot work wants a reason, or another choice.")).toBeVisible();
  await page.getByLabel("Done all the same, because").fill("it stands for one week");
  await page.getByRole("button", { name: "Receive it" }).press("Enter");
  await expect(page).toHaveURL(/jobs\/J-\d+\/system/);
  await expect(page.getByText("Done all the same: “it stands for one week”, Ines Calder.")).toBeVisible();
});

const pdfText = async (page: Page, url: string, file: string): Promise<string> => {
  const response = await page.request.get(url);
  expect(response.status(), url).toBe(200);
  writeFileSync(file, await response.body());
  return execFileSync("pdftotext", ["-layout", file, "-"], { encoding: "utf8" });
};

test("an option is offered, declined, printed, and met again on the rack's thread", async ({ page }, info) => {
  test.setTimeout(90_000);
  await signIn(page, "ines");
  await page.goto("/plan/receive");
  await page.getByLabel("knocks").check();
  await page.getByLabel(/Parts, one a line/).fill("Trolley bay,steel,2000x600x900,5,48,3.4,6,sharp");
  await page.getByRole("button", { name: "Receive it" }).press("Enter");
  await page.getByRole("heading", { name: /risks and system/ }).waitFor();
  const number = /J-\d+/.exec(page.url())?.[0] ?? "";

  // Cheaper: the primer goes, the risk comes, with what would remove it.
  await page.getByRole("radio", { name: /Cheaper/ }).check();
  await page.getByRole("button", { name: "Take this system" }).press("Enter");
  await expect(page.getByText("Rust creeps from knocks.")).toBeVisible();
  await expect(page.getByText("plan version 1")).toBeVisible();

  await page.getByRole("link", { name: "Options" }).press("Enter");
  await choose(page.getByLabel("Option", { exact: true }), "Zinc barrier primer");
  await page.getByLabel(/Price, GBP/).fill("-5");
  await page.getByRole("button", { name: "Record the offer" }).press("Enter");
  await expect(page.getByText("price: -5 is under 0. Correct it and record again.")).toBeVisible();
  await page.getByLabel(/Price, GBP/).fill("240");
  await page.getByRole("button", { name: "Record the offer" }).press("Enter");
  await expect(page.getByText("Not answered").first()).toBeVisible();
  expect(await pdfText(page, `/api/jobs/${number}/options.pdf`, info.outputPath("open.pdf"))).toContain("[ ] taken");
  await page.getByRole("radio", { name: "Declined" }).press(" ");
  await page.getByLabel("Whose word").fill("the yard office");
  await page.getByRole("button", { name: "Record answer" }).press("Enter");
  await expect(page.getByText("1 declined")).toBeVisible();
  const sheet = await pdfText(page, `/api/jobs/${number}/options.pdf`, info.outputPath("options.pdf"));
  for (const text of ["Zinc barrier primer", "£240", "declined", "the yard office", "Signature"])
    expect(sheet, text).toContain(text);

  // Fit, cost, card; released, the rack carries it.
  await page.getByRole("link", { name: "Fit", exact: true }).press("Enter");
  await expect(page.getByText(/on a rack, .* in an oven load/)).toBeVisible();
  await page.getByRole("button", { name: "hang on front" }).press("Enter");
  await page.getByRole("button", { name: "Keep these places" }).press("Enter");
  await expect(page.getByText("on 1 point", { exact: false })).toBeVisible();
  await page.getByRole("link", { name: "Cost" }).press("Enter");
  await expect(page.getByText("Powder, top coat")).toBeVisible();
  await page.getByRole("link", { name: "Route card" }).press("Enter");
  await page.getByRole("button", { name: "Release to the shop" }).press("Enter");
  await expect(page.getByText("Released, version 2")).toBeVisible();
  const card = await pdfText(page, `/api/jobs/${number}/route-card.pdf`, info.outputPath("card.pdf"));
  for (const text of [`Route card ${number}`, "Blast", "profile", "HOLD, sign:", "Cautions"])
    expect(card, text).toContain(text);

  await page.goto(`/jobs/${number}`);
  await page.waitForLoadState("networkidle");
  await page.getByText("Hang a rack").press("Enter");
  await page.getByLabel("Number on its tag").fill("4001");
  await page.getByRole("button", { name: "Record the rack" }).press("Enter");
  await expect(page.getByRole("heading", { name: /Rack 4001/ })).toBeVisible();
  await expect(page.getByText(/Zinc barrier primer offered, declined by the yard office/)).toBeVisible();
});

test("each part's fit is found as it is typed; its hanging is placed and judged; the card's code opens its traveller", async ({
  page,
}) => {
  await signIn(page, "ines");
  await page.goto("/plan/receive");
  const parts = page.getByLabel(/Parts, one a line/);
  await parts.fill("Long rail,steel,9000x100x100,4,60,4,2\nFold tube,steel,1500x80x80,4,13,0.5,2,hollow");
  const long = page.getByRole("region", { name: "Long rail" });
  await expect(long.getByText("Does not fit")).toBeVisible();
  await expect(long.getByText(/Oven 1: 3100 mm too long/)).toBeVisible();
  await expect(
    page.getByRole("region", { name: "Fold tube" }).getByText(/on a rack, \d+ in an oven load/),
  ).toBeVisible();
  await parts.fill("Fold tube,steel,1500x80x80,4,13,0.5,2,hollow");
  await choose(page.getByLabel("Hand finishing after cure"), /^2 steps/);
  await page.getByRole("button", { name: "Receive it" }).click();
  await expect(page.getByRole("heading", { name: /^Job J-\d+/ })).toBeVisible();
  const number = /Job (J-\d+)/.exec((await page.getByRole("heading", { level: 1 }).textContent()) ?? "")?.[1];

  await page.goto(`/jobs/${number}/fit`);
  await expect(page.getByText("No hang point is set on its sketch yet.")).toBeVisible();
  for (const y of ["15", "85"]) {
    await page.getByRole("button", { name: "hang on front" }).press("Enter");
    await page
      .getByLabel(/^Note of mark/)
      .last()
      .fill(`hole at ${y}`);
  }
  await page.getByRole("button", { name: "Keep these places" }).press("Enter");
  await expect(page.getByText(/stand over one another/)).toBeVisible();
  // The second one is placed apart, by the sketch.
  await page.getByRole("button", { name: "take off" }).last().press("Enter");
  const sketch = page.getByRole("group", { name: "Part sketch" });
  const box = await sketch.boundingBox();
  if (!box) throw new Error("no sketch");
  await sketch.click({ position: { x: box.width * 0.27, y: box.height * 0.16 } });
  await page.getByRole("button", { name: "Keep these places" }).press("Enter");
  await expect(page.getByText("No drain is marked")).toBeVisible();
  await page.getByRole("radio", { name: "centre of mass", exact: true }).press(" ");
  await page.getByRole("button", { name: "centre of mass on front" }).press("Enter");
  await page.getByRole("button", { name: "Keep these places" }).press("Enter");
  await expect(page.getByText(/by the centre of mass placed/)).toBeVisible();

  await page.goto(`/jobs/${number}/route-card`);
  await expect(page.getByText("Hand finishing")).toHaveCount(2);
  await expect(page.getByText("cross-cut through lacquer and powder, on a panel")).toBeVisible();
  await page.goto(`/jobs/${number}/traveller`);
  await expect(page).toHaveURL(new RegExp(`/jobs/${number}#racks$`));
  const tag = page.getByLabel("Number on its tag");
  await expect(async () => {
    if (!(await tag.isVisible())) await page.getByText("Hang a rack").press("Enter");
    await expect(tag).toBeVisible({ timeout: 1000 });
  }).toPass();
  await tag.fill("4002");
  await page.getByRole("button", { name: "Record the rack" }).press("Enter");
  await expect(page.getByRole("heading", { name: /Rack 4002/ })).toBeVisible();
  await page.goto(`/jobs/${number}/traveller`);
  await expect(page).toHaveURL(/\/racks\/4002$/);
  const card = await page.getByRole("link", { name: "Route card, PDF" }).getAttribute("href");
  const pdf = await page.request.get(card ?? "");
  expect(pdf.headers()["content-type"]).toBe("application/pdf");
  expect((await page.request.get(`/api/jobs/${number}/route-card.pdf?rack=0869`)).status()).toBe(404);
});

test("a job is set by hand on the calendar, and given back; the calendar leaves as iCalendar", async ({ page }) => {
  await signIn(page, "ines");
  await page.goto("/plan/calendar");
  await expect(page.getByRole("link", { name: "J-421", exact: true })).toBeVisible();
  await page.getByRole("button", { name: "J-421: four hours later" }).press("Enter");
  await expect(page.getByRole("button", { name: /^J-421, .*set by a person/ })).toBeVisible();
  await page.getByRole("button", { name: "J-421: give back to the schedule" }).press("Enter");
  await expect(page.getByRole("button", { name: /^J-421, .*set by a person/ })).toHaveCount(0);
  // Dragged with the pointer it is set too.
  const bar = page.getByRole("button", { name: /^J-423, / });
  const box = await bar.boundingBox();
  if (!box) throw new Error("no bar");
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect(page.getByRole("button", { name: /^J-423, .*set by a person/ })).toBeVisible();
  const ics = await page.request.get("/api/plan/calendar.ics");
  expect(ics.headers()["content-type"]).toContain("text/calendar");
  const text = await ics.text();
  expect(text).toContain("BEGIN:VCALENDAR");
  expect(text).toContain("J-421 booth: Gangway rail");
});

test("who is no lead reads the plan and changes nothing; a customer sees no one else's", async ({ page }) => {
  await signIn(page, "maren");
  for (const view of ["system", "options", "fit", "route-card"]) {
    await page.goto(`/jobs/J-421/${view}`);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await expect(page.locator("main").getByRole("button", { name: /Take this|Record|Keep|Release to/ })).toHaveCount(0);
  }
  await page.goto("/plan/receive");
  await expect(page.getByText("A lead receives work.")).toBeVisible();
  await page.context().clearCookies();
  await signIn(page, "otto");
  for (const path of ["/api/jobs/J-422/options.pdf", "/api/jobs/J-422/route-card.pdf"])
    expect((await page.request.get(path)).status(), path).toBe(404);
  for (const view of ["", "/options", "/system", "/cost"]) {
    await page.goto(`/jobs/J-422${view}`);
    await expect(page.getByText("Notice frame")).toHaveCount(0);
  }
  expect((await page.request.get("/api/jobs/J-421/options.pdf")).status()).toBe(200);
});
