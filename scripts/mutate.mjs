// npm run mutate: small faults put into core and server one at a time; each that no test notices is named in docs/mutation.md.
//   npm run mutate                              a seeded sample of 600
//   npm run mutate -- --sample 50 src/core/cure a sample of one folder; --sample all for every fault there
import { fork, spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { dataDir, ensurePackages, environmentFor, root, runTs, say, startPostgres } from "./lib/environment.mjs";

ensurePackages();
const { faultsIn } = await import("./mutate/faults.mjs");
const args = process.argv.slice(2);
const option = (name, otherwise) => {
  const at = args.indexOf(`--${name}`);
  return at < 0 ? otherwise : args.splice(at, 2)[1];
};
const sample = option("sample", "600");
let seed = Number(option("seed", "20261128"));
const report = option("report", "");
const watched = [
  "src/core",
  ...["entries", "kinds", "rack", "record", "trace", "imports", "release"].map((f) => `src/server/${f}`),
];
const folders = args.length > 0 ? args : watched;
/** Lists of knowledge as data: a wrong figure in them is a matter of reading, not of computing. */
const data = /templates\.ts$|usual-upkeep\.ts$|\.d\.ts$|index\.ts$/;

function filesBelow(place) {
  const full = path.join(root, place);
  try {
    return readdirSync(full, { withFileTypes: true }).flatMap((e) =>
      e.isDirectory()
        ? filesBelow(`${place}/${e.name}`)
        : /\.ts$/.test(e.name) && !data.test(e.name)
          ? [`${place}/${e.name}`]
          : [],
    );
  } catch {
    return /\.ts$/.test(place) ? [place] : [];
  }
}
const random = () => {
  // mulberry32: the same seed takes the same sample.
  seed = (seed + 0x6d2b79f5) | 0;
  let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
};
const all = folders
  .flatMap(filesBelow)
  .flatMap((file) => faultsIn(readFileSync(path.join(root, file), "utf8")).map((f) => ({ file, ...f })));
const picked =
  sample === "all"
    ? all
    : all
        .map((f) => ({ f, key: random() }))
        .sort((a, b) => a.key - b.key)
        .slice(0, Number(sample))
        .map((x) => x.f);
const plan = picked
  .sort((a, b) => (a.file < b.file ? -1 : a.file > b.file ? 1 : a.start - b.start))
  .map((f, id) => ({ id, ...f }));
say(`${all.length} faults can be made; ${plan.length} are.`);

mkdirSync(dataDir, { recursive: true });
const postgres = await startPostgres({ name: "pg-mutate", port: 54345, fast: true });
const startsAt = "2026-11-26T10:20:00Z";
const ahead = () => String(Date.parse(startsAt) - Date.now());
const template = "sorrel_template";
process.env.CLOCK_AHEAD_MS = ahead();
runTs(
  "scripts/prepare-database.ts",
  ["--reset-demo"],
  environmentFor(postgres.url(template), { DEMO_ANCHOR: new Date(Date.parse(startsAt) - 3_600_000).toISOString() }),
);
const work = mkdtempSync(path.join(os.tmpdir(), "faults-"));
const planFile = path.join(work, "plan.json");
writeFileSync(planFile, JSON.stringify(plan));
const envOf = (extra) => ({
  ...environmentFor(postgres.url(template)),
  CLOCK_AHEAD_MS: ahead(),
  TEST_SERVER_URL: postgres.url("postgres"),
  TEST_TEMPLATE: template,
  TZ: "Europe/London",
  FAULTS: planFile,
  ...extra,
});
const command = [
  "node_modules/vitest/vitest.mjs",
  "run",
  "--config",
  "scripts/mutate/vitest.config.ts",
  "--reporter=json",
];

// Once with every fault off: which files of tests come past which, and how long each takes.
const passedFile = path.join(work, "passed.jsonl");
writeFileSync(passedFile, "");
const whole = path.join(work, "whole.json");
const coreOnly = plan.every((f) => f.file.startsWith("src/core/"));
const firstArgs = [...command, ...(coreOnly ? ["--project", "core"] : []), `--outputFile=${whole}`];
const first = spawnSync(process.execPath, firstArgs, {
  cwd: root,
  env: envOf({ FAULTS_PASSED: passedFile }),
  encoding: "utf8",
  maxBuffer: 1 << 28,
});
if (first.status !== 0) {
  say(first.stdout.slice(-4000) + first.stderr.slice(-4000));
  for (const file of JSON.parse(readFileSync(whole, "utf8")).testResults)
    for (const t of file.assertionResults)
      if (t.status === "failed") say(`${file.name}: ${t.fullName}\n${t.failureMessages.join("\n").slice(0, 600)}`);
  throw new Error("the tests fail with no fault on");
}
const took = new Map(JSON.parse(readFileSync(whole, "utf8")).testResults.map((r) => [r.name, r.endTime - r.startTime]));
const past = new Map();
for (const line of readFileSync(passedFile, "utf8").trim().split("\n")) {
  const { file, passed } = JSON.parse(line);
  for (const id of passed) past.set(id, [...(past.get(id) ?? []), file]);
}

/** One of the processes that try faults; begun anew after one that hung. */
function newTester(n) {
  const faultFile = path.join(work, `on-${n}`);
  writeFileSync(faultFile, "-1");
  let child;
  let answer = () => {};
  const begin = () =>
    new Promise((resolve) => {
      child = fork(path.join(root, "scripts/mutate/tester.mjs"), {
        cwd: root,
        env: envOf({ FAULT_FILE: faultFile }),
        stdio: "ignore",
        detached: true,
      });
      child.on("message", (m) => (m.ready ? resolve() : answer(m.noticed)));
    });
  const end = () => {
    try {
      process.kill(-child.pid, "SIGKILL");
    } catch {}
    child = undefined;
  };
  return {
    end,
    /** Whether these tests notice the fault: by failing, by breaking off or by never ending. */
    async notice(fault, files) {
      if (!child) await begin();
      const limit = 15_000 + 6 * files.reduce((s, f) => s + (took.get(f) ?? 0), 0);
      return new Promise((resolve) => {
        const done = (noticed) => {
          clearTimeout(timer);
          child?.removeListener("exit", broken);
          resolve(noticed);
        };
        const broken = () => {
          child = undefined;
          done(true);
        };
        const timer = setTimeout(() => {
          child.removeListener("exit", broken);
          end();
          done(true);
        }, limit);
        answer = done;
        child.once("exit", broken);
        child.send({ fault, files });
      });
    },
  };
}
const verdicts = new Map();
async function tryOne(tester, fault) {
  const passing = (past.get(fault.id) ?? []).sort((a, b) => (took.get(a) ?? 0) - (took.get(b) ?? 0));
  // Core is tested on its own: what only a test with a database would notice of it does not count, where one of its own comes past.
  const ownTests = passing.filter((f) => /\/tests\/(core|ui)\//.test(f));
  const files = fault.file.startsWith("src/core/") && ownTests.length > 0 ? ownTests : passing;
  if (files.length === 0) return "no test comes past it";
  // The quick ones first, a few at a time: most faults are found at once.
  for (let i = 0; i < files.length; i += 3) if (await tester.notice(fault.id, files.slice(i, i + 3))) return "noticed";
  return "survived";
}
const queue = [...plan];
let done = 0;
await Promise.all(
  [1, 2].map(async (n) => {
    const tester = newTester(n);
    // With no fault on, nothing may be noticed: else every fault would seem to be.
    const quick = [...took].sort((a, b) => a[1] - b[1]).slice(0, 5);
    if (
      await tester.notice(
        -1,
        quick.map(([file]) => file),
      )
    )
      throw new Error("tests fail there with no fault on");
    for (let fault = queue.shift(); fault; fault = queue.shift()) {
      verdicts.set(fault.id, await tryOne(tester, fault));
      if (verdicts.get(fault.id) !== "noticed")
        say(`  ${fault.file}:${fault.line} ${fault.what}: ${verdicts.get(fault.id)}`);
      if (++done % 20 === 0)
        say(`${done} of ${plan.length}, ${[...verdicts.values()].filter((v) => v === "noticed").length} noticed`);
    }
    tester.end();
  }),
);
postgres.stop();

const group = (file) => (file.startsWith("src/core/") ? "core" : "server");
const lines = [];
for (const name of ["core", "server"]) {
  const mine = plan.filter((f) => group(f.file) === name);
  if (mine.length === 0) continue;
  const noticed = mine.filter((f) => verdicts.get(f.id) === "noticed").length;
  lines.push(`${name}: ${noticed} of ${mine.length} noticed, ${((100 * noticed) / mine.length).toFixed(1)} %`);
}
const survivors = plan
  .filter((f) => verdicts.get(f.id) !== "noticed")
  .map((f) => `- ${f.file}:${f.line} ${f.what}${verdicts.get(f.id) === "survived" ? "" : ` (${verdicts.get(f.id)})`}`);
say(`${lines.join("\n")}\n${survivors.join("\n")}`);
if (report)
  writeFileSync(
    path.resolve(root, report),
    `# What tests notice\n\nSmall faults put into the code one at a time (\`npm run mutate\`): comparisons and choices turned round, operators and figures changed, calls left out, conditions of queries altered. Of a seeded sample:\n\n${lines.map((l) => `- ${l}`).join("\n")}\n\n## Not noticed\n\n${survivors.join("\n")}\n`,
  );
rmSync(work, { recursive: true, force: true });
