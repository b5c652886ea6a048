// The rust mask of a photo of 12 megapixels: this core's and the same steps in OpenCV's wasm, in one browser, on one picture; then
// the whole way on the round's page, from choosing the photo to its reading, and the longest the page was held up.
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium } from "@playwright/test";
import { build } from "esbuild";
import sharp from "sharp";
import { launchOptions, signIn } from "../../tests/support/browser";
import { rustPhoto, rustSceneOf } from "../../tests/support/rust-photo";

const [width, height] = [4000, 3000];
const scene = rustPhoto(
  rustSceneOf(9, { width, height, film: [236, 234, 226], rusted: 0.05, shadow: 0.3, glare: 0, stains: 1 }),
);
const buffer = await sharp(Buffer.from(scene.picture.rgba), { raw: { width, height, channels: 4 } })
  .jpeg({ quality: 92 })
  .toBuffer();
const root = path.resolve(import.meta.dirname, "../..");
const core = await build({
  stdin: {
    contents: `import { rustShare } from "@/core/photo"; globalThis.ownRust = (p) => rustShare(p, null);`,
    resolveDir: root,
    loader: "ts",
  },
  bundle: true,
  write: false,
  format: "iife",
  platform: "browser",
  alias: { "@": path.join(root, "src") },
});
const browser = await chromium.launch(launchOptions);
const page = await browser.newPage();
await page.setContent("<p>rust</p>");
// What compiles this file names the functions that it hands over.
await page.addScriptTag({ content: "globalThis.__name = (f) => f" });
await page.addScriptTag({ content: core.outputFiles[0]?.text ?? "" });
const opencv = readFileSync(path.join(root, "node_modules/@techstark/opencv-js/dist/opencv.js"), "utf8");
await page.addScriptTag({ content: opencv });
await page.evaluate(async () => {
  // biome-ignore lint/suspicious/noExplicitAny: a script of its own without types
  const own = globalThis as any;
  if (own.cv instanceof Promise) own.cv = await own.cv;
  if (!own.cv.Mat) await new Promise<void>((resolve) => (own.cv.onRuntimeInitialized = () => resolve()));
});
const both = await page.evaluate(async (jpeg) => {
  // biome-ignore lint/suspicious/noExplicitAny: scripts of their own without types
  const own = globalThis as any;
  const { cv } = own;
  const blob = await (await fetch(`data:image/jpeg;base64,${jpeg}`)).blob();
  const bitmap = await createImageBitmap(blob);
  /** From the decoded photo of 12 megapixels, as the page's worker does: drawn at half its size first. */
  const half = (): ImageData => {
    const canvas = new OffscreenCanvas(2000, 1500);
    const context = canvas.getContext("2d", { willReadFrequently: true });
    if (!context) throw new Error("no canvas");
    context.imageSmoothingQuality = "high";
    context.drawImage(bitmap, 0, 0, 2000, 1500);
    return context.getImageData(0, 0, 2000, 1500);
  };
  /** The same steps: at half its size, to a thousand px, smoothed, logarithms of red and of blue over green, commonest colour, roughness by
   * five by five, distance along the way from film to rust, one's neighbours' majority. */
  const byOpenCv = (): number => {
    const all: { delete(): void }[] = [];
    const keep = <T extends { delete(): void }>(m: T): T => {
      all.push(m);
      return m;
    };
    const src = keep(cv.matFromImageData(half()));
    const small = keep(new cv.Mat());
    cv.resize(src, small, new cv.Size(1000, 750), 0, 0, cv.INTER_AREA);
    const smooth = keep(new cv.Mat());
    cv.GaussianBlur(small, smooth, new cv.Size(5, 5), 0.8);
    const channels = keep(new cv.MatVector());
    cv.split(smooth, channels);
    const [r, g, b] = [0, 1, 2].map((i) => {
      const f = keep(new cv.Mat());
      const own8 = keep(channels.get(i));
      own8.convertTo(f, cv.CV_32F, 1, 3);
      const log = keep(new cv.Mat());
      cv.log(f, log);
      return log;
    });
    const [u, v] = [keep(new cv.Mat()), keep(new cv.Mat())];
    cv.subtract(r, g, u);
    cv.subtract(b, g, v);
    // The film: the commonest cell of the two.
    const cells = keep(new cv.Mat());
    const planes = keep(new cv.MatVector());
    planes.push_back(u);
    const uv = keep(new cv.MatVector());
    uv.push_back(u);
    uv.push_back(v);
    const none = keep(new cv.Mat());
    cv.calcHist(uv, [0, 1], none, cells, [40, 40], [-2, 2, -2, 2]);
    const most = cv.minMaxLoc(cells).maxLoc;
    const film = [-2 + 0.1 * (most.y + 0.5), -2 + 0.1 * (most.x + 0.5)];
    const grey = keep(new cv.Mat());
    cv.cvtColor(small, grey, cv.COLOR_RGBA2GRAY);
    const light = keep(new cv.Mat());
    grey.convertTo(light, cv.CV_32F);
    const [mean, square, squares, rough] = [0, 1, 2, 3].map(() => keep(new cv.Mat()));
    cv.boxFilter(light, mean, -1, new cv.Size(5, 5));
    cv.multiply(light, light, square);
    cv.boxFilter(square, squares, -1, new cv.Size(5, 5));
    const meanSquare = keep(new cv.Mat());
    cv.multiply(mean, mean, meanSquare);
    cv.subtract(squares, meanSquare, rough);
    const way = [0.6 - (film[0] as number), -0.62 - (film[1] as number)];
    const size = (way[0] as number) ** 2 + (way[1] as number) ** 2;
    const along = keep(new cv.Mat());
    cv.addWeighted(
      u,
      (way[0] as number) / size,
      v,
      (way[1] as number) / size,
      -((film[0] as number) * (way[0] as number) + (film[1] as number) * (way[1] as number)) / size,
      along,
    );
    const mask32 = keep(new cv.Mat());
    cv.threshold(along, mask32, 0.5, 1, cv.THRESH_BINARY);
    const mask = keep(new cv.Mat());
    mask32.convertTo(mask, cv.CV_8U);
    const settled = keep(new cv.Mat());
    cv.medianBlur(mask, settled, 3);
    const share = (100 * cv.countNonZero(settled)) / (1000 * 750);
    for (const m of all) m.delete();
    return share;
  };
  const byOwn = (): number => {
    const image = half();
    return own.ownRust({ width: image.width, height: image.height, rgba: image.data }).value.sharePercent;
  };
  // In turn, so that what else the machine does falls on both.
  const times: { own: number[]; opencv: number[]; half: number[] } = { own: [], opencv: [], half: [] };
  const shares = { own: 0, opencv: 0 };
  for (let i = 0; i < 18; i++) {
    for (const [name, run] of [
      ["own", byOwn],
      ["opencv", byOpenCv],
    ] as const) {
      const start = performance.now();
      shares[name] = run();
      // The first three warm both up.
      if (i >= 3) times[name].push(performance.now() - start);
    }
    const start = performance.now();
    half();
    if (i >= 3) times.half.push(performance.now() - start);
  }
  const median = (list: number[]) => [...list].sort((a, b) => a - b)[7] as number;
  return {
    half: median(times.half),
    own: { share: shares.own, median: median(times.own), most: Math.max(...times.own) },
    opencv: { share: shares.opencv, median: median(times.opencv), most: Math.max(...times.opencv) },
  };
}, buffer.toString("base64"));
const said = (t: { share: number; median: number; most: number }) =>
  `median ${t.median.toFixed(0)} ms, slowest of 15: ${t.most.toFixed(0)} ms, share ${t.share.toFixed(2)} %`;
console.log(
  `12 megapixels to a mask, truth ${(100 * scene.share).toFixed(2)} %: own ${said(both.own)}; OpenCV's wasm ${said(both.opencv)}; of both, drawing the photo at half its size is ${both.half.toFixed(0)} ms`,
);

const base = process.env.BASE_URL ?? "";
const app = await browser.newPage({ viewport: { width: 390, height: 844 } });
await signIn(app, "bea", base);
await app.goto(`${base}/round`);
await app.getByRole("link", { name: "Walk it" }).first().click();
await app.getByRole("link", { name: /^(Begin|Go on) with/ }).click();
await app.getByRole("button", { name: "Measure on a photo" }).click();
await app.evaluate(() => {
  const own = window as unknown as { longest: number };
  own.longest = 0;
  new PerformanceObserver((list) => {
    for (const task of list.getEntries()) own.longest = Math.max(own.longest, task.duration);
  }).observe({ type: "longtask" });
});
const directory = mkdtempSync(path.join(tmpdir(), "rust-photo-"));
const times: number[] = [];
for (let i = 0; i < 4; i++) {
  const file = path.join(directory, `rust-${i}.jpg`);
  writeFileSync(file, buffer);
  const start = performance.now();
  await app.getByLabel(/A photo of the zone/).setInputFiles(file);
  await app.getByText("Reading the photo").waitFor();
  await app.getByText(/the machine reads/).waitFor({ timeout: 60_000 });
  times.push(performance.now() - start);
}
const longest = await app.evaluate(() => (window as unknown as { longest: number }).longest);
console.log(
  `on the page, first ${times[0]?.toFixed(0)} ms, then ${times
    .slice(1)
    .map((t) => t.toFixed(0))
    .join(", ")} ms; longest task of the page ${longest.toFixed(0)} ms`,
);
await browser.close();
rmSync(directory, { recursive: true });
