// Layer boundaries: app → ui, server → db, core; core → nothing but small pure libraries. Fails with each import that breaks them.
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";

const src = path.resolve(import.meta.dirname, "../src");
/** What each layer may import from src, and which packages the core may use. Types of the server are known to the interface; its code is not. */
const may: Record<string, readonly string[]> = {
  core: ["core"],
  db: ["db", "core"],
  server: ["server", "db", "core"],
  ui: ["ui", "core"],
  workers: ["workers", "core"],
  demo: ["demo", "server", "db", "core"],
  app: ["app", "ui", "server", "db", "core", "demo"],
  types: ["types"],
};
const corePackages = new Set(["valibot", "jstat", "papaparse", "date-fns", "@date-fns/tz", "culori/fn"]);

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
  // One home for each control: a screen asks the kit for it.
  const native = /<(select|details)\b|type="(checkbox|radio)"/.exec(text);
  if (native && !file.includes(path.join("ui", "fields")))
    problems.push(`${path.relative(src, file)} has ${native[0]} of its own: ui/fields has one`);
  if (layer === "core" && /\bDate\.now\(|\bMath\.random\(|process\.env|new Date\(\)/.test(text))
    problems.push(`${path.relative(src, file)}: the core reads no clock, chance or environment`);
}
// No circle of folders within the server, nor of files anywhere: each can be read after what it stands on.
const edges = new Map<string, Set<string>>();
for (const file of filesBelow(src)) {
  const from = path.relative(src, file).replace(/\.tsx?$/, "");
  for (const match of readFileSync(file, "utf8").matchAll(
    /(?:^|\n)\s*(?:import|export)(\s+type)?[^"';]*?from\s+["']([^"']+)["']/g,
  )) {
    const [, typeOnly, target = ""] = match;
    if (typeOnly || !/^[.@]/.test(target)) continue;
    const to = target.startsWith("@/")
      ? target.slice(2)
      : target.startsWith(".")
        ? path.relative(src, path.resolve(path.dirname(file), target))
        : null;
    if (to) edges.set(from, (edges.get(from) ?? new Set()).add(to));
  }
}
const known = new Set([...edges.keys()]);
const named = (to: string) => (known.has(to) ? to : known.has(`${to}/index`) ? `${to}/index` : null);
const done = new Set<string>();
function walk(file: string, above: readonly string[]): void {
  const at = above.indexOf(file);
  if (at >= 0) {
    problems.push(`a circle of imports: ${[...above.slice(at), file].join(" → ")}`);
    return;
  }
  if (done.has(file)) return;
  for (const to of edges.get(file) ?? []) {
    const next = named(to);
    if (next) walk(next, [...above, file]);
  }
  done.add(file);
}
for (const file of known) walk(file, []);
// Of two folders of the server one may know the other, types included, not both each other.
const folders = new Map<string, string>();
for (const file of filesBelow(path.join(src, "server"))) {
  const own = path.relative(path.join(src, "server"), file).split(path.sep);
  if (own.length < 2) continue;
  for (const [, target = ""] of readFileSync(file, "utf8").matchAll(/from\s+["'](\.[^"']+|@\/server\/[^"']+)["']/g)) {
    const to = path
      .relative(
        path.join(src, "server"),
        target.startsWith("@/") ? path.join(src, target.slice(2)) : path.resolve(path.dirname(file), target),
      )
      .split(path.sep);
    if (to.length < 2 || to[0] === own[0] || to[0] === "..") continue;
    folders.set(`${own[0]} ${to[0]}`, `${own.join("/")} imports ${to.join("/")}`);
    const back = folders.get(`${to[0]} ${own[0]}`);
    if (back)
      problems.push(`two folders of the server know each other: ${own.join("/")} imports ${to.join("/")}, ${back}`);
  }
}
for (const problem of problems) console.error(problem);
console.log(problems.length === 0 ? "Layers hold." : `${problems.length} imports break the layers.`);
process.exit(problems.length === 0 ? 0 : 1);
