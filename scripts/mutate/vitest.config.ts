import { readFileSync } from "node:fs";
import path from "node:path";
import { defineConfig, type Plugin } from "vitest/config";
import base from "../../vitest.config";
import { switched } from "./faults.mjs";

const root = path.resolve(import.meta.dirname, "../..");
type Planned = { id: number; file: string; start: number; end: number; replacement: string };
const plan: Planned[] = JSON.parse(readFileSync(process.env.FAULTS ?? "", "utf8"));
const faults: Plugin = {
  name: "faults",
  enforce: "pre",
  transform(code, id) {
    const mine = plan.filter((f) => path.join(root, f.file) === id);
    return mine.length > 0 ? { code: switched(code, mine), map: null } : undefined;
  },
};
const projects = (base.test?.projects ?? []).map((project) => {
  const own = project as { test: object };
  // A fault in what a module works out as it is loaded is on only where it is loaded anew.
  return {
    ...own,
    plugins: [faults],
    test: { ...own.test, isolate: true, setupFiles: [path.join(import.meta.dirname, "setup.ts")] },
  };
});
export default defineConfig({ ...base, root, test: { ...base.test, projects } });
