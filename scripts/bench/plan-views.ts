// The plan's views at their largest, in Chromium: a delivery of 200 parts fitted in its worker, and 300 jobs dragged on
// the calendar. Needs a demo database of its own: it receives the 300 jobs.
import { chromium } from "@playwright/test";
import { launchOptions, signIn } from "../../tests/support/browser";

const base = process.env.BASE_URL ?? "";
const browser = await chromium.launch(launchOptions);
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
const page = await context.newPage();
await signIn(page, "ines", base);

/** Parts enough to differ: names, sizes and sections. */
const lines = (count: number, from = 0) =>
  Array.from({ length: count }, (_, i) => {
    const n = from + i;
    return `Part ${n},steel,${300 + ((n * 37) % 1500)}x${60 + ((n * 13) % 300)}x${200 + ((n * 29) % 800)},${2 + (n % 9)},${4 + (n % 12)},${2 + (n % 3)},${1 + (n % 30)}`;
  }).join("\n");
const quantile = (values: number[], q: number) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * q))] ?? 0;

await page.goto(`${base}/plan/receive`);
await page.waitForLoadState("networkidle");
const start = Date.now();
await page.getByLabel(/^Parts, one a line/).fill(lines(200));
await page.waitForFunction(
  () =>
    [...document.querySelectorAll("main section p")].filter((p) => /Fits|Does not fit/.test(p.textContent ?? ""))
      .length >= 200,
);
console.log(`  200 parts, from the paste to every part's fit on screen: ${Date.now() - start} ms; asked: under 1 s`);

for (let sent = 0; sent < 300; sent += 100) {
  await page.goto(`${base}/plan/receive`);
  await page.waitForLoadState("networkidle");
  await page.getByLabel(/^Parts, one a line/).fill(lines(100, sent));
  const due = new Date(Date.now() + (20 + sent / 10) * 86_400_000).toISOString().slice(0, 10);
  await page.locator("input[name=due]").fill(due);
  await page.getByRole("button", { name: /^Receive 100 parts/ }).click();
  await page.waitForURL((url) => url.pathname === "/plan", { timeout: 60_000 });
}
const opened = Date.now();
await page.goto(`${base}/plan/calendar`);
await page.waitForLoadState("networkidle");
const jobs = await page.getByRole("link", { name: /^J-\d+$/ }).count();
console.log(`  calendar opened, ${Date.now() - opened} ms, ${jobs} jobs in the page`);

// As text: a named function inside would lose its name's helper on the way to the page.
const countFrames = `window.gaps = [];
  let last = performance.now();
  requestAnimationFrame(function tick(at) { window.gaps.push(at - last); last = at; requestAnimationFrame(tick); });`;
const gaps = () => page.evaluate(() => (window as unknown as { gaps: number[] }).gaps.splice(0));
await page.evaluate(countFrames);
const bar = page.getByRole("button", { name: /^J-\d+, / }).first();
const box = await bar.boundingBox();
if (!box) throw new Error("no bar");
await gaps();
await page.mouse.move(box.x + 10, box.y + 10);
await page.mouse.down();
for (let i = 0; i < 60; i++) {
  await page.mouse.move(box.x + 10 + i * 4, box.y + 10);
  await page.waitForTimeout(16);
}
const dragged = await gaps();
console.log(
  `  a bar dragged: ${dragged.length} frames, median ${quantile(dragged, 0.5).toFixed(0)} ms, 95 % under ${quantile(dragged, 0.95).toFixed(0)} ms, longest ${Math.max(...dragged).toFixed(0)} ms`,
);
await page.keyboard.press("Escape");
await page.mouse.up();
await gaps();
for (let i = 0; i < 60; i++) {
  await page.mouse.wheel(0, 120);
  await page.waitForTimeout(16);
}
const scrolled = await gaps();
console.log(
  `  scrolled: ${scrolled.length} frames, median ${quantile(scrolled, 0.5).toFixed(0)} ms, 95 % under ${quantile(scrolled, 0.95).toFixed(0)} ms, longest ${Math.max(...scrolled).toFixed(0)} ms`,
);
await browser.close();
