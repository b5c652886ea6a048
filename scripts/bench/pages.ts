// Server time of the busiest pages: request to last byte on loopback, signed in, after a warm-up.
import { chromium } from "@playwright/test";
import { launchOptions, signIn } from "../../tests/support/browser";

const base = process.env.BASE_URL ?? "";
const browser = await chromium.launch(launchOptions);
const page = await browser.newPage();
await signIn(page, "tomasz", base);
const cookie = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join("; ");
await browser.close();
for (const [name, path] of [
  ["Shift", "/"],
  ["Traveller", "/racks/0869"],
  ["Film", "/racks/0869/thickness"],
  ["Release", "/racks/0869/release"],
  ["Bath", "/pretreat/tank-3"],
  ["Case", "/causes/29"],
] as const) {
  const times: number[] = [];
  for (let i = 0; i < 45; i++) {
    const start = performance.now();
    const response = await fetch(base + path, { headers: { cookie } });
    await response.arrayBuffer();
    if (response.status !== 200) throw new Error(`${path} answered ${response.status}`);
    if (i >= 5) times.push(performance.now() - start);
  }
  times.sort((a, b) => a - b);
  console.log(
    `  ${name.padEnd(10)} median ${(times[times.length >> 1] as number).toFixed(0)} ms, 95 % under ${(times[Math.floor(times.length * 0.95)] as number).toFixed(0)} ms${name === "Shift" || name === "Traveller" ? "; asked: median under 80 ms" : name === "Release" ? "; asked: under 100 ms" : ""}`,
  );
}
