// Layer boundaries: app → ui, server → db, core; core → nothing but small pure libraries. Fails with each import that breaks them.
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";

const src = path.resolve(import.meta.dirname, "../src");
/** What each layer may import from src, and which packages the core may use. Types of the server are known to the interface; its code is not. */
const may: Record<string, readonly string[]> = {
  core: ["core"],
  db: ["db", "core"],
  server: ["server", "db", "core", "demo"],
  ui: ["ui", "core"],
  workers: ["workers", "core"],
  demo: ["demo", "server", "db", "core"],
  app: ["app", "ui", "server", "db", "core"],
  types: ["types"],
};
const corePackages = new Set(["valibot", "jstat", "papaparse"]);

function filesBelow(directory: string): string[] {
  return readdirSync(directory, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory()
      ? filesBelow(path.join(directory, entry.name))
      : /\.tsx?$/.test(entry.name)
        ? [path.join(directory, entry.name)]
        : [],
  );
}

const problems: string[] = [];
for (const file of filesBelow(src)) {
  const layer = path.relative(src, file).split(path.sep)[0] as string;
  const text = readFileSync(file, "utf8");
  for (const match of text.matchAll(/(?:^|\n)\s*(import|export)(\s+type)?[^"';]*?from\s+["']([^"']+)["']/g)) {
    const [, , typeOnly, target = ""] = match;
    const inside = target.startsWith("@/")
      ? target.slice(2).split("/")[0]
      : target.startsWith(".")
        ? path.relative(src, path.resolve(path.dirname(file), target)).split(path.sep)[0]
        : null;
    const said = `${path.relative(src, file)} imports ${target}`;
    if (inside === null) {
      if (layer === "core" && !target.startsWith("node:") && !corePackages.has(target))
        problems.push(`${said}: not a package for the core`);
      if (layer === "core" && target.startsWith("node:")) problems.push(`${said}: the core touches no system`);
    } else if (
      inside !== layer &&
      !(may[layer] ?? []).includes(inside as string) &&
      !(layer === "ui" && inside === "server" && typeOnly)
    )
      problems.push(`${said}: ${layer} may not import ${inside}`);
  }
  if (layer === "core" && /\bDate\.now\(|\bMath\.random\(|process\.env|new Date\(\)/.test(text))
    problems.push(`${path.relative(src, file)}: the core reads no clock, chance or environment`);
}
for (const problem of problems) console.error(problem);
console.log(problems.length === 0 ? "Layers hold." : `${problems.length} imports break the layers.`);
process.exit(problems.length === 0 ? 0 : 1);
