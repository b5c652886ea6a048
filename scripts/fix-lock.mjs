// Some registries do not serve every foreign-platform optional package; npm then leaves it out of
// package-lock.json and `npm ci` (npm 11) refuses the lock. Add inert entries for those.
import { readFileSync, writeFileSync } from "node:fs";

const lock = JSON.parse(readFileSync("package-lock.json", "utf8"));
const pk = lock.packages;
const OS = ["android", "darwin", "freebsd", "win32", "linux", "openbsd", "netbsd", "sunos", "aix", "openharmony"];
const CPU = ["arm64", "x64", "ia32", "arm", "wasm32", "riscv64", "s390x", "ppc64", "ppc64le", "loong64", "mips64el"];
let n = 0;
for (const [where, p] of Object.entries({ ...pk })) {
  for (const [name, range] of Object.entries(p.optionalDependencies ?? {})) {
    let found = false;
    for (let at = where; ; at = at.includes("/node_modules/") ? at.slice(0, at.lastIndexOf("/node_modules/")) : "") {
      if (pk[`${at ? `${at}/` : ""}node_modules/${name}`]) {
        found = true;
        break;
      }
      if (!at) break;
    }
    if (found) continue;
    const words = name.toLowerCase().split(/[-/]/);
    const e = { version: range, optional: true };
    if (p.dev) e.dev = true;
    const os = words.includes("wasm32") ? undefined : OS.find((o) => words.includes(o));
    const cpu = words.includes("gnueabihf") && words.includes("arm") ? "arm" : CPU.find((c) => words.includes(c));
    if (os) e.os = [os];
    if (cpu) e.cpu = [cpu];
    if (words.includes("musl")) e.libc = ["musl"];
    if (!os && !cpu) {
      console.error("not a platform package, skipped:", name);
      continue;
    }
    pk[`node_modules/${name}`] = e;
    n++;
  }
}
lock.packages = Object.fromEntries(Object.entries(pk).sort(([a], [b]) => a.localeCompare(b, "en")));
writeFileSync("package-lock.json", `${JSON.stringify(lock, null, 2)}\n`);
console.log(`added ${n} inert entries`);
