import { chromium } from "@playwright/test";
import sharp from "sharp";
import { launchOptions, signIn } from "../tests/support/browser";
import { creepPhoto, creepSceneOf } from "../tests/support/creep-photo";

const base = process.env.BASE_URL ?? "";
const browser = await chromium.launch(launchOptions);
const shots: [name: string, path: string, theme: "light" | "dark", width: number, height: number][] = [
  ["shift", "/", "light", 1280, 800],
  ["bath", "/pretreat/tank-3", "light", 1280, 800],
  ["film", "(film)", "dark", 1280, 800],
  ["cure", "/racks/0869/cure", "light", 1280, 800],
  ["bench", "/racks/1042/bench", "light", 1280, 800],
  ["release", "/racks/0869/release", "light", 1280, 800],
  ["traveller", "/racks/0869", "light", 1280, 800],
  ["field-tablet", "/field/jetty-a", "light", 820, 1180],
  ["causes", "/causes/29", "dark", 1280, 800],
  ["pretreat", "/pretreat", "light", 1280, 1000],
  ["round-tablet", "(round)", "light", 834, 900],
  ["field-round", "(walk)", "light", 390, 1000],
  ["receive", "(receive)", "light", 1280, 900],
  ["part", "/plan/parts/SHELTER-POST", "dark", 1280, 900],
  ["load", "(load)", "light", 1280, 900],
  ["shop", "/shop/equipment", "light", 1280, 900],
  ["prepare-tablet", "(prepare)", "light", 820, 1180],
  ["coat", "(coat)", "dark", 1280, 900],
  ["yield", "/release/yield", "light", 1280, 1000],
];
for (const [name, path, theme, width, height] of shots) {
  const context = await browser.newContext({ viewport: { width, height } });
  await context.addCookies([{ name: "theme", value: theme, url: base }]);
  const page = await context.newPage();
  await signIn(page, "ines", base);
  if (path === "(film)") {
    await page.goto(`${base}/test`);
    await page
      .getByRole("link", { name: /Tram shelter post.*Film in hand/ })
      .first()
      .click();
    await page.getByText("How it stands by the rule").waitFor();
    await page.keyboard.type("61.5");
  } else if (path === "(prepare)" || path === "(coat)") {
    await page.goto(`${base}/prepare`);
    await page
      .getByRole("link", { name: /Tram shelter post.*Bare metal/ })
      .first()
      .click();
    await page.getByRole("heading", { name: "Prepare and pass on" }).waitFor();
    if (path === "(coat)") {
      await page.getByRole("link", { name: "Coat" }).last().click();
      await page.waitForLoadState("networkidle");
      for (const [item, value] of Object.entries({
        "lead-rack": "0.2",
        "rack-hook": "0.7",
        "hook-part": "0.3",
        "hooks-stripped": "4",
        "air-rest": "70",
        "air-flowing": "58",
        "booth-air": "0.86",
      }))
        await page.locator(`#pf-${item}`).fill(value);
      await page.getByRole("button", { name: "All I looked at is in order" }).click();
    }
  } else if (path === "(load)") {
    await page.goto(`${base}/cure`);
    await page
      .getByRole("link", { name: /^Oven 1, load/ })
      .first()
      .click();
    await page.waitForLoadState("networkidle");
    await page.getByRole("button", { name: /Follow it/ }).click();
    // Sixty times as fast as the clock: so long is a quarter of an hour in the oven.
    await page.waitForTimeout(15_000);
  } else if (path === "(walk)") {
    // A scribe of the demo's own making, with the scale card beside it.
    const shot = creepPhoto(creepSceneOf(8, { creepMm: 3, looseMm: 1.5, film: [40, 90, 60], shadow: 0.3, glare: 0 }));
    const { picture } = shot;
    const buffer = await sharp(Buffer.from(picture.rgba), {
      raw: { width: picture.width, height: picture.height, channels: 4 },
    })
      .jpeg()
      .toBuffer();
    await page.goto(`${base}/round`);
    await page.getByRole("link", { name: "Walk it" }).first().click();
    await page.getByRole("link", { name: /leg foot/ }).click();
    await page.getByRole("button", { name: "Measure on a photo" }).click();
    await page.getByRole("radio", { name: "Creep", exact: true }).click();
    await page
      .getByLabel(/A photo of the scribe/)
      .setInputFiles({ name: "scribe.jpg", mimeType: "image/jpeg", buffer });
    await page.getByText(/The card is found/).waitFor();
    for (const end of shot.scribe) {
      const canvas = page.getByLabel(/^The photo: tap/);
      await canvas.scrollIntoViewIfNeeded();
      const box = await canvas.boundingBox();
      const [x, y] = shot.seen(end);
      if (box)
        await page.mouse.click(box.x + (x / picture.width) * box.width, box.y + (y / picture.height) * box.height);
    }
    await page.getByText(/mean width that rusts/).waitFor();
    await page.getByText("What you see").scrollIntoViewIfNeeded();
    await page.evaluate(() => window.scrollTo(0, 180));
  } else if (path === "(receive)") {
    await page.goto(`${base}/plan/receive`);
    await page.getByLabel("road salt").check();
    await page
      .getByLabel(/Parts, one a line/)
      .fill("Lamp head,cast alu,420x320x260,8,6.8,0.62,20\nBench,steel,1800x450x450,5,22,1.7,6,laser,laps 2.4");
    await page.getByText("Receive 2 parts").waitFor();
  } else if (path === "(round)") {
    await page.goto(`${base}/pretreat/round`);
    const inputs = page.locator("input[data-value]");
    await page.waitForLoadState("networkidle");
    for (const [i, text] of ["5.9", "8.4", "5.1", "47"].entries()) await inputs.nth(i).fill(text);
  } else await page.goto(base + path);
  await page.waitForTimeout(600);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  await context.close();
}
await browser.close();
