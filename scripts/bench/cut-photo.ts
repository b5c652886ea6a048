// A cross-cut read from a photo of 12 megapixels in the browser, from choosing it to its reading, and the longest the page was
// held up; then from photos made up with known truth: how near, and how often it cannot tell.
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium } from "@playwright/test";
import sharp from "sharp";
import { crossCutGrade } from "../../src/core/bench";
import { readCrossCut } from "../../src/core/photo";
import { launchOptions, signIn } from "../../tests/support/browser";
import { latticePhoto, sceneOf } from "../../tests/support/lattice-photo";

const [width, height] = [4000, 3000];
const photo = latticePhoto(sceneOf(4, { width, height, glare: 0, noise: 2, size: 0.6, lifted: 0.12, blurPx: 2 }));
const buffer = await sharp(Buffer.from(photo.picture.rgba), { raw: { width, height, channels: 4 } })
  .jpeg({ quality: 92 })
  .toBuffer();
const base = process.env.BASE_URL ?? "";
const browser = await chromium.launch(launchOptions);
const page = await browser.newPage();
await signIn(page, "ines", base);
await page.goto(`${base}/racks/1042/bench`);
await page.getByRole("button", { name: "Or read it from a photo" }).click();
const form = page.locator("form").filter({ hasText: "A photo of the lattice after the tape" });
await page.evaluate(() => {
  const own = window as unknown as { longest: number };
  own.longest = 0;
  new PerformanceObserver((list) => {
    for (const task of list.getEntries()) own.longest = Math.max(own.longest, task.duration);
  }).observe({ type: "longtask" });
});
// From files, as a person chooses them: sent through the browser’s own line they would be unpacked on the page.
const directory = mkdtempSync(path.join(tmpdir(), "cut-photo-"));
const files = [0, 1, 2, 3].map((i) => {
  const file = path.join(directory, `cut-${i}.jpg`);
  writeFileSync(file, buffer);
  return file;
});
const times: number[] = [];
for (let i = 0; i < 4; i++) {
  const start = performance.now();
  await form.getByLabel(/A photo of the lattice/).setInputFiles(files[i] as string);
  await form.getByText("Reading the photo").waitFor();
  await form.getByText(/the machine reads/).waitFor({ timeout: 60_000 });
  times.push(performance.now() - start);
}
const longest = await page.evaluate(() => (window as unknown as { longest: number }).longest);
console.log(
  `12 megapixels, first ${times[0]?.toFixed(0)} ms, then ${times
    .slice(1)
    .map((t) => t.toFixed(0))
    .join(", ")} ms; longest task of the page ${longest.toFixed(0)} ms`,
);
await browser.close();
rmSync(directory, { recursive: true });

const SCENES = 60;
const FIRST_SEED = 1001;
const found = { told: 0, within: 0, grade: 0 };
const cannot = new Map<string, number>();
for (let seed = FIRST_SEED; seed < FIRST_SEED + SCENES; seed++) {
  const photo = latticePhoto(sceneOf(seed));
  const read = readCrossCut(photo.picture, 6);
  if (!read.ok) {
    cannot.set(read.error.kind, (cannot.get(read.error.kind) ?? 0) + 1);
    continue;
  }
  const truth = crossCutGrade(100 * photo.share);
  found.told++;
  if (Math.abs(read.value.removedPercent - 100 * photo.share) <= 1) found.within++;
  if (truth.ok && truth.value.iso === read.value.grade.iso) found.grade++;
}
const percent = (n: number) => `${((100 * n) / found.told).toFixed(1)} %`;
console.log(
  `${SCENES} photos: ${found.told} told, ${percent(found.within)} of them within 1 % of the area, ${percent(found.grade)} of the same grade; cannot tell: ${[...cannot].map(([kind, n]) => `${kind} ${n}`).join(", ")}`,
);
