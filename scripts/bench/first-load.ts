// First-load JavaScript of Shift, gzipped: the chunks that the build's manifests list for the page and its layouts.
import { existsSync, readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { gzipSync } from "node:zlib";

const next = path.resolve(import.meta.dirname, "../../.next");
const root: { rootMainFiles: string[]; polyfillFiles?: string[] } = JSON.parse(
  readFileSync(path.join(next, "build-manifest.json"), "utf8"),
);
const directory = path.join(next, "server/app/(line)");
const manifest = readdirSync(directory).find((f) => f === "page_client-reference-manifest.js");
if (!manifest) throw new Error("the build has no manifest for Shift");
const text = readFileSync(path.join(directory, manifest), "utf8");
const entries = JSON.parse(/"entryJSFiles":\s*(\{.*?\})\s*[,}]\s*(?:"|;|$)/s.exec(text)?.[1] ?? "{}") as Record<
  string,
  string[]
>;
const files = new Set([...root.rootMainFiles, ...Object.values(entries).flat()].filter((f) => f.endsWith(".js")));
let sum = 0;
for (const file of files) {
  const full = path.join(next, file);
  if (existsSync(full)) sum += gzipSync(readFileSync(full)).length;
}
if (Object.keys(entries).length === 0) throw new Error("the manifest for Shift lists no chunks");
console.log(`  Shift: ${(sum / 1000).toFixed(0)} kB gzipped in ${files.size} files; asked: under 200 kB`);
