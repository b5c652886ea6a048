import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";
import { now } from "../../src/server/now";
import { choose, test } from "../support/browser";

const base = process.env.E2E_OWN_BASE ?? "";
const views = [
  "/",
  "/plan",
  "/plan/receive",
  "/plan/calendar",
  "/plan/parts",
  "/prepare",
  "/pretreat",
  "/pretreat/round",
  "/pretreat/set-up",
  "/coat",
  "/coat/powders",
  "/coat/sheets",
  "/cure",
  "/cure/planner",
  "/cure/conveyor",
  "/cure/ovens",
  "/cure/ovens/new/set-up",
  "/cure/proof",
  "/racks",
  "/test",
  "/test/film",
  "/test/gauges",
  "/upkeep",
  "/release",
  "/field",
  "/causes",
  "/causes/atlas",
  "/causes/contrast",
  "/causes/knowledge",
  "/records",
  "/records/import",
  "/shop",
  "/shop/customers",
  "/shop/instruments",
  "/shop/equipment",
  "/shop/rates",
  "/shop/schools",
  "/shop/backup",
  "/shop/begin",
  "/records/export",
  "/causes/complaints/new",
  "/plan/parts/new",
  "/shop/people",
  "/shop/password",
];
test.describe.configure({ mode: "serial" });
const none = async (page: Page) => {
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).setLegacyMode(true).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
};

test("a shop begins from nothing: its name, its hours, its administrator; then customers, a gauge, places, limits", async ({
  page,
}) => {
  test.setTimeout(180_000);
  await page.goto(`${base}/`);
  await expect(page).toHaveURL(/\/first-run$/);
  await none(page);
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByLabel(/What it is called/).fill("Copper Lane Coatings");
  await choose(page.getByLabel("Time zone"), "Europe/Lisbon");
  await page.getByRole("button", { name: "One more shift" }).press("Enter");
  await page.getByLabel("Shift 2").fill("Late shift");
  await page.getByLabel("Saturday").press(" ");
  await page.getByLabel("Your name").fill("Ada Mell");
  await page.getByLabel(/^User name/).fill("ada");
  await page.getByLabel(/^Password, /).fill("copper lane kettle");
  await page.getByLabel("The password once more").fill("copper lane kettle");
  await page.getByRole("button", { name: "Begin", exact: true }).press("Enter");
  await expect(page.getByRole("heading", { name: "What needs a hand now" })).toBeVisible();
  await expect(page.getByText("Copper Lane Coatings")).toBeVisible();
  const before = page.getByRole("region", { name: "Before the first rack" });
  await expect(before.getByRole("listitem")).toHaveCount(9);
  await expect(before.getByText("not yet")).toHaveCount(9);
  await none(page);
  // Begun once, it is begun: the first page is no way in any more.
  await page.goto(`${base}/first-run`);
  await expect(page).not.toHaveURL(/first-run/);

  // No view needs the demo: each opens and says how to begin.
  for (const path of views) {
    const answer = await page.goto(base + path);
    expect(answer?.status(), path).toBe(200);
    await expect(page.locator("h1").first(), path).toBeVisible();
    await expect(page.getByText("could not be shown"), path).toHaveCount(0);
  }

  // What is missing is named where it is needed, with the way to it.
  for (const [path, to] of [
    ["/test/gauges", "/shop/instruments"],
    ["/pretreat", "/pretreat/set-up"],
    ["/cure/ovens", "/cure/ovens/new/set-up"],
    ["/plan/receive", "/shop/customers"],
  ] as const) {
    await page.goto(base + path);
    await page.getByRole("link", { name: "Set one up" }).first().click();
    await expect(page).toHaveURL(base + to);
  }

  const more = page.getByRole("region", { name: "One more" });
  await page.goto(`${base}/shop/customers`);
  await none(page);
  for (const name of ["Harrow Brackets", "Lumen Row"]) {
    await more.getByLabel(/^Name/).fill(name);
    await more.getByLabel("Where it comes from").fill("first order");
    await more.getByRole("button", { name: "Put it on record" }).press("Enter");
    await expect(page.locator("[data-fold]").getByText(name)).toBeVisible();
  }
  await expect(page.locator("[data-fold]").filter({ hasText: "Lumen Row" }).getByText("C2")).toBeVisible();
  await more.getByLabel(/^Name/).fill("lumen row");
  await more.getByLabel("Where it comes from").fill("again");
  await more.getByRole("button", { name: "Put it on record" }).press("Enter");
  await expect(more.getByText(/lumen row/i)).toBeVisible();

  await page.goto(`${base}/shop/instruments`);
  await more.getByLabel("Number on it").fill("88");
  await more.getByLabel("Name", { exact: true }).fill("Film gauge 88");
  await more.getByLabel("Serial number").fill("0088-A");
  await more.getByLabel("Where it comes from").fill("bought new, certificate in the drawer");
  await more.getByRole("button", { name: "Put it on record" }).press("Enter");
  await expect(page.locator("[data-fold]").getByText("0088-A")).toBeVisible();
  await page.goto(`${base}/test/gauges`);
  await expect(page.getByText("Film gauge 88, serial 0088-A")).toBeVisible();

  await page.goto(`${base}/shop/equipment`);
  await more.getByLabel("Called on the line").fill("BOOTH-1");
  await more.getByLabel("Name", { exact: true }).fill("Hand booth");
  await more.getByLabel("Inside along, mm").fill("2400");
  await more.getByLabel("across, mm").fill("1200");
  await more.getByLabel("Where it comes from").fill("measured");
  await more.getByRole("button", { name: "Put it on record" }).press("Enter");
  await expect(more.getByText("Type a number here.")).toBeVisible();
  await more.getByLabel("up, mm").fill("2000");
  await more.getByRole("button", { name: "Put it on record" }).press("Enter");
  await expect(page.locator("[data-fold]").getByText("2400 × 1200 × 2000 mm")).toBeVisible();

  await page.goto(`${base}/`);
  for (const name of ["Customers", "Equipment", "Film gauge"])
    await expect(before.getByRole("link", { name }).getByText("set up", { exact: true })).toBeVisible();
  await expect(before.getByText("not yet")).toHaveCount(6);
  await page.goto(`${base}/shop`);
  await none(page);
  await page.getByText("6 not set up yet").click();
  await expect(page.getByRole("region", { name: "Not set up yet" }).getByRole("listitem")).toHaveCount(6);
  await page.getByLabel(/^Metal above the dew point/).fill("40");
  await page.getByLabel("Why it changes").fill("salt air off the estuary");
  await page.getByRole("button", { name: "Keep it" }).press("Enter");
  await expect(page.getByText(/Metal above the dew point, at least: 40 is over 20/)).toBeVisible();
  await page.getByLabel(/^Metal above the dew point/).fill("4");
  await page.getByRole("button", { name: "Keep it" }).press("Enter");
  await expect(page.getByText("Kept, from now on.")).toBeVisible();
  await expect(page.locator("aside").getByText(/salt air off the estuary/)).toBeVisible();
  await page.goto(`${base}/coat`);
  await page.goto(`${base}/shop`);
  await expect(page.getByLabel(/^Metal above the dew point/)).toHaveValue("4");
});

const localSeconds = (ms: number) =>
  new Intl.DateTimeFormat("sv-SE", {
    timeZone: process.env.TZ ?? "Europe/London",
    dateStyle: "short",
    timeStyle: "medium",
  }).format(ms);

test("three people run a day on it: a line from a template, powder, parts, a job from receiving to certificate, an oven file with odd headings, a complaint answered", async ({
  page,
}) => {
  test.setTimeout(240_000);
  page.setDefaultTimeout(15_000);
  const began = now().getTime();
  await page.goto(`${base}/sign-in`);
  await page.getByLabel("User name").fill("ada");
  await page.getByLabel("Password").fill("copper lane kettle");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("heading", { name: "What needs a hand now" })).toBeVisible();
  const open = (path: string) => page.goto(base + path);
  const say = async (text: string, said = /^Recorded/) => {
    await page.keyboard.press("/");
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
    await expect(page.locator("#entry-said"), text).toHaveText(said);
    await page.keyboard.press("Escape");
  };

  // Who is new is shown round, leaves it half way, and takes it up again.
  const shown = page.getByRole("complementary", { name: "First-shift tour" });
  await page.getByRole("button", { name: "Show me" }).press("Enter");
  await expect(shown).toContainText("1 of 12");
  await shown.getByRole("button", { name: "Next" }).press("Enter");
  await expect(shown).toContainText("2 of 12");
  await shown.getByRole("link", { name: "Go there" }).click();
  await expect(page).toHaveURL(`${base}/racks`);
  await expect(shown).toContainText("2 of 12");
  await none(page);
  await shown.getByRole("button", { name: "Leave the tour" }).press("Enter");
  await expect(shown).toBeHidden();
  await page.getByRole("button", { name: /^Ada Mell, administrator/ }).click();
  await page.getByRole("menuitem", { name: "First-shift tour" }).click();
  await expect(shown).toContainText("1 of 12");
  await shown.getByRole("button", { name: "Leave the tour" }).press("Enter");
  await expect(shown).toBeHidden();

  // A line like theirs, all of it at once: two baths, a hand booth, one oven.
  await open("/shop/begin");
  await page.getByRole("radio", { name: "Hand wand, hand booth and one oven" }).click();
  await page.getByRole("button", { name: "Begin with this line" }).press("Enter");
  await page.getByRole("button", { name: "Yes, put all of it on record" }).press("Enter");
  await expect(page.getByText(/On record: 2 baths, .* 1 oven/)).toBeVisible();

  // They have no blast room: steel is sanded here.
  await open("/shop/schools");
  await choose(page.getByLabel("Steel is brought to bare metal by"), /^sanding/);
  await page.getByLabel("Why it changes").fill("no blast room");
  await page.getByRole("button", { name: "Keep them" }).press("Enter");
  await expect(page.getByText(/set by Ada Mell.*no blast room/)).toBeVisible();

  // Two more hands.
  await open("/shop/people");
  const someone = page.getByRole("region", { name: "Someone new" });
  for (const [user, name, role] of [
    ["bert", "Bert Holloway", "inspector"],
    ["cleo", "Cleo Marsh", "operator"],
  ] as const) {
    await someone.getByLabel("User name").fill(user);
    await someone.getByLabel("Name", { exact: true }).fill(name);
    await choose(someone.getByLabel("Role"), role);
    await someone.getByRole("button", { name: "Make this person" }).press("Enter");
    await expect(page.locator("[data-fold]").getByText(name)).toBeVisible();
  }

  // Powder from the maker's list, and a lot of it.
  await open("/coat/powders");
  await page.getByText("Put several on record from a list (CSV)").click();
  await page
    .getByLabel("Powders, a line each")
    .fill("code;name;film from;film to;sg;cure\nGY-100;Grey, fine texture;60;120;1,5;180 20, 190 15, 200 10");
  await page.getByLabel("Where the list is from").fill("maker's price list");
  await page.getByRole("button", { name: "Put them on record" }).press("Enter");
  await expect(page.getByRole("button", { name: /GY-100 Grey, fine texture/ })).toBeVisible();
  const month = new Date(began - 40 * 86_400_000).toISOString().slice(0, 10);
  await page.getByLabel("Lots, a line each").fill(`powder,lot,made,kg\nGY-100,7,${month},25`);
  await page.getByRole("button", { name: "Take them into stock" }).press("Enter");
  await expect(page.locator("[data-fold]").getByText("GY-100/7")).toBeVisible();
  await page.locator("[data-fold]").filter({ hasText: "GY-100/7" }).getByRole("button").first().click();
  await page.getByRole("button", { name: "Its first box is opened now" }).press("Enter");
  await expect(page.getByText(/opened \d{4}-/)).toBeVisible();

  // Steel brackets, drawn; the cast lamp bodies are drawn by what is said as they come in.
  await open("/plan/parts/new");
  await page.getByLabel("Part, as it is called").fill("Steel bracket");
  for (const [name, value] of [
    ["Length, mm", "200"],
    ["Width, mm", "120"],
    ["Height, mm", "20"],
    ["Thinnest, mm", "4"],
    ["Thickest, mm", "6"],
    ["Mass, kg", "1.1"],
    ["Area to coat, m²", "0.06"],
  ] as const)
    await page.getByLabel(name).fill(value);
  await page.getByRole("button", { name: "Draw a first sketch" }).press("Enter");
  await page.getByRole("button", { name: "Put it in the library" }).press("Enter");
  await expect(page).toHaveURL(/\/plan\/parts\/STEEL-BRACKET$/);

  await open("/plan/receive");
  await choose(page.getByLabel("Customer", { exact: true }), "Harrow Brackets");
  await choose(page.getByLabel("Powder asked for"), /GY-100/);
  await page.getByLabel("Customer’s order number").fill("PO 4411");
  await page.getByLabel("weather", { exact: true }).check();
  await page
    .getByLabel(/^Parts, one a line/)
    .fill(
      "Steel bracket, hot-rolled steel, 200x120x20, 6, 1.1, 0.06, x12\nLamp body, cast aluminium, 220x180x120, 9, 2.4, 0.21, x6",
    );
  await page.getByLabel("welding, plates and grinding are done").check();
  await page.getByRole("button", { name: "Receive 2 parts" }).press("Enter");
  await page.waitForURL((url) => !url.pathname.endsWith("/receive"));
  await open("/jobs/J-1");
  await expect(page.getByRole("heading", { name: /^Job J-1, steel bracket/i })).toBeVisible();
  await page.getByText("Hang a rack").click();
  await page.getByLabel("Number on its tag").fill("1");
  await page.getByLabel("Pieces", { exact: true }).fill("12");
  await page.getByRole("button", { name: "Record the rack" }).press("Enter");
  await expect(page.getByRole("heading", { name: "Rack 1, steel bracket" })).toBeVisible();
  // Its tag has a code that opens it; the card goes with it.
  const tag = await page.request.get(`${base}/api/labels.pdf?of=rack&number=1`);
  expect(tag.headers()["content-type"]).toBe("application/pdf");

  // The morning: both baths, the metal, into the wash, dry, powder on.
  await page.clock.setSystemTime(now().getTime() - 3 * 3_600_000);
  await open("/pretreat/round");
  await page.getByLabel("titrant, mL").fill("8");
  await page.getByLabel("temperature, °C").fill("50");
  await page.getByLabel("conductivity, µS/cm").fill("180");
  await page.getByRole("button", { name: "Record the round" }).press("Enter");
  await expect(page.getByText(/2 baths recorded|Recorded/).first()).toBeVisible();
  // The metal, step by step as its card asks: wiped, sanded, blown off.
  await open("/racks/1/prepare");
  const done = page.getByRole("main").getByRole("button", { name: "Done", exact: true });
  const corrections = page.getByRole("main").getByRole("button", { name: "Correct" });
  for (let step = 1; step <= 3; step++) {
    await done.first().press("Enter");
    await expect(corrections).toHaveCount(step);
  }
  for (const [stage, minutesAgo] of [
    ["clean", 176],
    ["conversion", 173],
    ["rinse", 170],
    ["dry-off", 169],
  ] as const) {
    await page.clock.setSystemTime(began - minutesAgo * 60_000);
    await say(`rack 1 in ${stage}`);
  }
  await page.clock.setSystemTime(began - 150 * 60_000);
  await open("/racks/1/prepare");
  await page.getByRole("radio", { name: "dry", exact: true }).click();
  await page.getByRole("button", { name: "Record the dry-off" }).press("Enter");
  await expect(page.getByText(/^Recorded/).first()).toBeVisible();
  await open("/racks/1/coat");
  await page.locator("#coat-kv").fill("70");
  await page.getByRole("button", { name: "Record coat" }).press("Enter");
  await expect(page.getByText("1 coat on record")).toBeVisible();

  // Into the oven for an hour; its recorder's file has headings of its own.
  const door = Math.floor((now().getTime() - 70 * 60_000) / 1000) * 1000;
  await page.clock.setSystemTime(door);
  await say("oven 1 load 1 1");
  await page.clock.setSystemTime(now().getTime());
  const rows = Array.from({ length: 121 }, (_, i) => {
    const at = localSeconds(door + i * 30_000);
    const heat = (tau: number) => (203 - 183 * Math.exp(-i / tau)).toFixed(1).replace(".", ",");
    return `${at.slice(8, 10)}.${at.slice(5, 7)}.${at.slice(0, 4)} ${at.slice(11)};${heat(3)};${heat(14)};${400 + (i % 5)}`;
  });
  await open("/records/import");
  await page.getByLabel("File", { exact: true }).setInputFiles({
    name: "ofen.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(`Schreiber 4;Halle 1;;\nZeitpunkt;Umluft;Fühler 1;Lüfter\n${rows.join("\n")}\n`),
  });
  await page.getByRole("button", { name: "Read it" }).click();
  await expect(page.getByText("The file names no unit")).toBeVisible();
  await choose(page.getByLabel("Column Lüfter is"), "left out");
  const order = page.getByLabel("Dates are");
  if (await order.isVisible()) await choose(order, "day first");
  await choose(page.getByLabel("Unit", { exact: true }), "°C");
  await expect(page.getByText("Understood as an oven trace")).toBeVisible();
  await expect(page.getByLabel("Load it is of")).toHaveText(/1, Oven 1: in .*rack 1/);
  await choose(page.getByLabel("Probe Fühler 1 hangs on"), "rack 1");
  await expect(page.getByText("Understood as an oven trace")).toBeVisible();
  // Read anew with the probe said; then stored.
  await page.getByRole("button", { name: "Store all of it" }).click();
  await expect(page.getByText("121 samples stored.")).toBeVisible();
  await open("/cure");
  await page.getByRole("button", { name: /^Pull/ }).first().press("Enter");
  await expect(page.getByRole("button", { name: /^Pull/ })).toHaveCount(0);
  await open("/racks/1/cure");
  await expect(page.getByText(/Cured/).first()).toBeVisible();
  // Cool before it is read and packed.
  await open("/cure/loads/oven-1/1");
  await page.getByLabel("Metal now, °C").fill("24");
  await page.getByRole("button", { name: "Record its heat" }).press("Enter");
  await expect(page.getByText("May be taken down")).toBeVisible();

  // The bench: film at each spot by the entry line, looked at, cut.
  for (const spot of ["f1", "f2", "f3", "f4", "f5", "b1", "b2", "b3", "b4", "b5"])
    await say(`rack 1 dft ${spot} 82 85 80`);
  await open("/racks/1/bench");
  await page.getByRole("button", { name: "How closely each face is looked at" }).click();
  await expect(page.getByText("Usual classes: this customer has none of their own.")).toBeVisible();
  const cut = page.locator("form").filter({ hasText: "Cross-cut with tape" });
  await cut.getByLabel("no square came away").check();
  await cut.getByRole("button", { name: "Record cross-cut" }).press("Enter");
  await expect(page.getByText(/Cross-cut grade 0/i).first()).toBeVisible();
  const look = page.locator("form").filter({ hasText: "Record the look" });
  for (let face = 0; face < 2; face++) await look.getByRole("button", { name: "Nothing on this face" }).press("Enter");
  await look.getByLabel("From, m").fill("0.6");
  await look.getByLabel("Light on it, lux").fill("1000");
  await expect(look.getByText("Nothing found on 2 faces")).toBeVisible();
  await look.getByRole("button", { name: "Record the look" }).press("Enter");
  await expect(page.getByText(/Recorded/).first()).toBeVisible();
  await open("/racks/1/release");
  await expect(page.getByText("Can be released")).toBeVisible();
  // Out of the dry-off when it was looked at, not when it went into the oven.
  await expect(page.getByText(/19 min/).first()).toBeVisible();
  await page.getByText("Accepted", { exact: true }).click();
  await page.getByLabel("Reason, in a sentence").fill("All of it in");
  await page.getByLabel("Your password signs it").fill("copper lane kettle");
  await page.getByRole("button", { name: "Sign and record" }).press("Enter");
  await expect(page.getByRole("link", { name: "Certificate, PDF" })).toBeVisible();
  const certificate = await page.request.get(`${base}/api/racks/1/certificate.pdf`);
  expect(certificate.headers()["content-type"]).toBe("application/pdf");

  // Weeks later: two come back. It is taken in, stands on Shift, and is answered.
  await open("/racks/1/release");
  await page.getByRole("link", { name: "A customer complains of it" }).click();
  await page.getByLabel("Who says it").fill("Harrow’s buyer");
  await page.getByLabel("Their number for it").fill("RMA 3");
  await page.getByLabel("Pieces returned").fill("2");
  await page.getByLabel("Pieces that show it").fill("1");
  await choose(page.getByLabel("What it most looks like"), /^Orange peel/);
  await page.getByLabel("What they say, in their words").fill("One of them is rough like an orange");
  await page.getByRole("button", { name: "Record the complaint and open its case" }).press("Enter");
  await expect(page.getByRole("heading", { name: "Complaint RMA 3" })).toBeVisible();
  await expect(page.getByRole("link", { name: /^Case 1: orange peel, cause open/ })).toBeVisible();
  await none(page);
  const address = page.url();
  await open("/");
  await expect(page.getByRole("link", { name: /Complaint of Harrow Brackets, rack 1/ })).toBeVisible();
  await page.goto(address);
  await expect(page.getByLabel("The answer")).toHaveValue(/Your reference RMA 3\. Your order PO 4411/);
  await page.getByRole("button", { name: "Record it as sent" }).press("Enter");
  await expect(page.getByRole("heading", { name: "Answer, as sent" })).toBeVisible();
  await open("/");
  await expect(page.getByRole("link", { name: /Complaint of Harrow Brackets/ })).toBeHidden();
  // All of it leaves as a spreadsheet has it: thirty readings under their heading.
  const film = await page.request.get(`${base}/api/export/thickness_reading.csv?bom=yes`);
  const csv = await film.text();
  expect(csv.startsWith("\uFEFFwhen,utc_offset,")).toBe(true);
  expect(csv.trimEnd().split("\r\n")).toHaveLength(31);
  // From nothing to here, by hand it is read and typed slower: the words and keys of it take well under half an hour.
  expect(now().getTime() - began).toBeLessThan(30 * 60_000);
});
