import { expect } from "@playwright/test";
import { signIn, test } from "../support/browser";

test("signed out: every page leads to sign-in, every route answers 401", async ({ page, request }) => {
  for (const path of ["/", "/racks/0942", "/causes/29", "/records/import"]) {
    await page.goto(path);
    await expect(page).toHaveURL(/sign-in\?to=/);
  }
  for (const path of [
    "/api/jobs/J-408/export.json",
    "/api/jobs/J-408/readings.csv",
    "/api/racks/0942/certificate.pdf",
    "/api/instruments/film-gauge",
    "/api/files/01a208b1-7efb-7fd9-ad4e-654fd57dba4a",
    "/api/field/pack",
    "/api/field/who",
    "/api/field/card.pdf",
    "/api/field/visits.ics",
    "/api/structures/JETTY-A/report.pdf",
  ])
    expect((await request.get(path)).status(), path).toBe(401);
  for (const path of ["/api/field/captures", "/api/field/photos"])
    expect((await request.post(path, { data: { by: "bea", entry: {} } })).status(), path).toBe(401);
  // From another site nothing is taken, whoever is signed in.
  const foreign = { data: {}, headers: { "sec-fetch-site": "cross-site" } };
  expect((await request.post("/api/field/captures", foreign)).status()).toBe(403);
  // The round's own page holds no record: it opens, and asks who is there.
  await page.goto("/round");
  await expect(page.getByText("Nobody is signed in here.")).toBeVisible();
});

test("a wrong password says so, keeps the name, and sign-in rests after several", async ({ page }) => {
  await page.goto("/sign-in");
  for (let i = 0; i < 7; i++) {
    await page.getByLabel("User name").fill("stranger");
    await page.getByLabel("Password").fill(`wrong-${i}`);
    await page.getByRole("button", { name: "Sign in" }).click();
    await expect(page.getByRole("button", { name: "Sign in" })).toBeEnabled();
    await expect(page.getByText(i < 6 ? "do not match" : "Too many tries")).toBeVisible();
    await expect(page.getByLabel("User name")).toHaveValue("stranger");
  }
});

test("sign-in does not lead away from the application", async ({ page, baseURL }) => {
  await page.goto("/sign-in?to=//example.invalid/");
  await page.getByLabel("User name").fill("bea");
  await page.getByLabel("Password").fill("bea-tarnwick-quay");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page).toHaveURL(`${baseURL}/`);
});

test("a customer's viewer: own racks yes, others not found, nothing to record with", async ({ page }) => {
  await signIn(page, "otto");
  await page.goto("/plan");
  await expect(page.getByText("Saltmarsh Ferries").first()).toBeVisible();
  await expect(page.getByText("Ordway Lamps")).toHaveCount(0);
  await page.goto("/racks/0869/release");
  await expect(page.getByText("A lead decides.")).toBeVisible();
  expect((await page.request.get("/api/jobs/J-409/export.json")).status()).toBe(404);
  // A round is an inspector's: nothing is handed to a viewer to take along.
  expect((await page.request.get("/api/field/pack")).status()).toBe(403);
  await page.goto("/records/import");
  await expect(page).toHaveURL(/refused/);
  await page.goto("/");
  await page.keyboard.press("/");
  await page.keyboard.type("tank 3 ph 5.3");
  await page.keyboard.press("Enter");
  await expect(page.locator("#entry-said")).toContainText("Your role (viewer) may not do this");
});

test("an ended session keeps what was typed and says so", async ({ page, context }) => {
  await signIn(page, "bea");
  await page.goto("/field/jetty-a");
  await page.getByLabel("Zone", { exact: true }).fill("bay 2, foot");
  await page.getByLabel("Widths in mm", { exact: false }).fill("1 1.2 1.1 0.9 1 1.1");
  await context.clearCookies({ name: /session_token/ });
  await page.getByRole("button", { name: "Record visit" }).click();
  await expect(page.getByText("Your session has ended")).toBeVisible();
  await expect(page.getByLabel("Zone", { exact: true })).toHaveValue("bay 2, foot");
});

test("a photo: its kind is checked by content, its metadata removed", async ({ page }) => {
  await signIn(page, "bea");
  await page.goto("/field/jetty-a");
  await page
    .getByLabel("JPEG, PNG or WebP", { exact: false })
    .setInputFiles({ name: "not-a.jpg", mimeType: "image/jpeg", buffer: Buffer.from("hello, I am text") });
  await page.getByRole("button", { name: "Attach photo" }).click();
  await expect(page.getByText("not a picture Sorrel takes")).toBeVisible();
  const sharp = (await import("sharp")).default;
  const picture = await sharp({ create: { width: 300, height: 200, channels: 3, background: "#93391a" } })
    .withExif({ IFD0: { Copyright: "place and camera" } })
    .jpeg()
    .toBuffer();
  await page
    .getByLabel("JPEG, PNG or WebP", { exact: false })
    .setInputFiles({ name: "creep.jpg", mimeType: "image/jpeg", buffer: picture });
  await page.getByLabel("Caption").fill("bay 4 leg");
  await page.getByRole("button", { name: "Attach photo" }).click();
  await expect(page.getByText("Photo attached")).toBeVisible();
  const image = page.getByRole("img", { name: "bay 4 leg" });
  await expect(image).toBeVisible();
  const stored = await (await page.request.get((await image.getAttribute("src")) ?? "")).body();
  expect((await sharp(stored).metadata()).exif).toBeUndefined();
});

test("headers: a strict policy with a nonce, on every page", async ({ request }) => {
  const response = await request.get("/sign-in");
  const policy = response.headers()["content-security-policy"] ?? "";
  expect(policy).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
  expect(policy).not.toMatch(/script-src[^;]*unsafe/);
  expect(policy).toContain("frame-ancestors 'none'");
  expect(response.headers()["x-content-type-options"]).toBe("nosniff");
  expect(await response.text()).toContain("nonce=");
});

test("health answers with the database's state", async ({ request }) => {
  expect(await (await request.get("/api/health")).json()).toMatchObject({ ok: true });
});

test("not found and malformed addresses are pages, not failures", async ({ page }) => {
  await signIn(page, "ines");
  for (const path of [
    "/racks/9999",
    "/causes/0",
    "/causes/contrast?defect=%00&from=never&by=nothing&variable=x&value=%F0",
    "/causes/knowledge?defect=melancholy",
    "/causes/29/message?customer=nobody",
    "/field/nowhere",
    "/pretreat/tank-99",
    "/jobs/x%00y",
    "/racks/%E0%A4%A",
    "/records?before=yesterday&kind=x",
  ]) {
    const response = await page.goto(path);
    expect(response?.status(), path).toBeLessThan(500);
  }
});

test("without a network the page says so, and what was begun is still there after", async ({ page, context }) => {
  await signIn(page, "bea");
  await page.goto("/field/jetty-a");
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.getByLabel("Zone", { exact: true }).fill("bay 9, gate post");
  await context.setOffline(true);
  await page.goto("/plan");
  await expect(page.getByRole("heading", { name: "No network" })).toBeVisible();
  await context.setOffline(false);
  await page.goto("/field/jetty-a");
  await expect(page.getByLabel("Zone", { exact: true })).toHaveValue("bay 9, gate post");
});

test("what is typed before the page has woken is kept, and counts", async ({ page }) => {
  await signIn(page, "ines");
  await page.goto("/release");
  const link = await page.locator('main a[href^="/racks/"]').first().getAttribute("href");
  const rack = link?.split("/")[2];
  let wake = () => {};
  const asleep = new Promise<void>((resolve) => {
    wake = resolve;
  });
  await page.route("**/_next/static/**/*.js", async (route) => {
    await asleep;
    await route.continue();
  });
  const visit = page.goto(`/racks/${rack}/release`, { waitUntil: "commit" });
  const recoat = page.getByText("Scuff and recoat", { exact: true });
  await recoat.click();
  await page.getByLabel("Reason, in a sentence").fill("Coat anew, face B is thin");
  wake();
  await visit;
  await page.waitForSelector('[data-wakes="done"]', { state: "attached" });
  await page.getByLabel("Your password signs it").fill("not-my-password");
  await page.getByRole("button", { name: "Sign and record" }).press("Enter");
  await expect(page.getByText("That password is not yours")).toBeVisible();
  await expect(page.getByLabel("Reason, in a sentence")).toHaveValue("Coat anew, face B is thin");
  await expect(page.getByRole("radio", { name: "Scuff and recoat" })).toBeChecked();
});

test("older records begin where the page before them ended", async ({ page }) => {
  await signIn(page, "ines");
  await page.goto("/records");
  const rows = page.locator(".bench .ruled .row");
  await expect(rows).toHaveCount(60);
  const told = await rows.allTextContents();
  await page.getByRole("link", { name: "Older" }).press("Enter");
  await page.waitForURL(/id=/);
  await expect.poll(() => rows.first().textContent()).not.toBe(told[0]);
  const older = await rows.allTextContents();
  expect(told.slice(-1)).not.toEqual(older.slice(0, 1));
  await page.goBack();
  await expect.poll(() => rows.first().textContent()).toBe(told[0]);
});

test("a correction keeps the old round, with its reason", async ({ page }) => {
  await signIn(page, "bea");
  await page.goto("/pretreat/tank-4");
  await page.getByRole("textbox", { name: /conductivity/ }).fill("71");
  await page.getByRole("button", { name: "Record round" }).click();
  await expect(page.getByText("Recorded.", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: /Correct the round/ }).click();
  await page.getByRole("textbox", { name: /conductivity/ }).fill("17");
  await page.getByRole("button", { name: "Record the correction" }).click();
  await expect(page.getByText("Say why it is corrected")).toBeVisible();
  await page.getByLabel(/is corrected/).fill("digits turned round");
  await page.getByRole("button", { name: "Record the correction" }).click();
  await expect(page.getByText("Recorded.", { exact: true })).toBeVisible();
  await page.goto("/records?kind=bath-check");
  await expect(page.getByText("digits turned round")).toBeVisible();
});
