// First-load JavaScript of each view, gzipped: the chunks that the build's manifests list for the page and its layouts.
import { existsSync, readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { gzipSync } from "node:zlib";

const next = path.resolve(import.meta.dirname, "../../.next");
const SHIFT_KB = 200;
const MOST_KB = 230;
const root: { rootMainFiles: string[] } = JSON.parse(readFileSync(path.join(next, "build-manifest.json"), "utf8"));
const line = path.join(next, "server/app/(line)");
const zipped = new Map<string, number>();
const sizeOf = (file: string): number => {
  const known = zipped.get(file);
  if (known !== undefined) return known;
  const full = path.join(next, file);
  const size = existsSync(full) ? gzipSync(readFileSync(full)).length : 0;
  zipped.set(file, size);
  return size;
};

function kilobytes(manifest: string): number {
  const text = readFileSync(manifest, "utf8");
  const entries = JSON.parse(/"entryJSFiles":\s*(\{.*?\})\s*[,}]\s*(?:"|;|$)/s.exec(text)?.[1] ?? "{}") as Record<
    string,
    string[]
  >;
  if (Object.keys(entries).length === 0) throw new Error(`${manifest} lists no chunks`);
  const files = new Set([...root.rootMainFiles, ...Object.values(entries).flat()].filter((f) => f.endsWith(".js")));
  return [...files].reduce((sum, f) => sum + sizeOf(f), 0) / 1000;
}

const views = readdirSync(line, { recursive: true, encoding: "utf8" })
  .filter((f) => f.endsWith("page_client-reference-manifest.js"))
  .map((f) => ({ view: `/${path.dirname(f) === "." ? "" : path.dirname(f)}`, kB: kilobytes(path.join(line, f)) }))
  .sort((a, b) => b.kB - a.kB);
const shift = views.find((v) => v.view === "/");
if (!shift) throw new Error("the build has no manifest for Shift");
console.log(`  Shift: ${shift.kB.toFixed(0)} kB gzipped; asked: under ${SHIFT_KB} kB`);
for (const { view, kB } of views.slice(0, 12))
  console.log(`  ${view}: ${kB.toFixed(0)} kB${kB > MOST_KB ? `, over the ${MOST_KB} kB asked` : ""}`);
console.log(`  ${views.length} views, ${views.filter((v) => v.kB > MOST_KB).length} over ${MOST_KB} kB`);
