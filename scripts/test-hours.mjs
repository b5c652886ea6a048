// npm run test:hours: everything that touches time, begun at eight hours of the day, on the last of a month, on 29 February
// and on the days when the clocks change, in two time zones. `npm run test:hours -- unit` leaves the browser out.
import { spawnSync } from "node:child_process";
import { mkdirSync, writeFileSync } from "node:fs";
import path from "node:path";
import { root, say } from "./lib/environment.mjs";

const hours = ["00:05", "03:20", "06:02", "09:45", "13:10", "17:10", "20:30", "23:40"].map(
  (h) => `2027-01-14T${h}:00Z`,
);
const days = {
  "Europe/London": ["2027-03-28T00:40:00Z", "2027-10-31T01:20:00Z"],
  "America/St_Johns": ["2027-03-14T05:10:00Z", "2027-11-07T04:50:00Z"],
};
const always = ["2026-11-30T23:10:00Z", "2028-02-29T11:30:00Z"];
const [only = ""] = process.argv.slice(2);
const out = path.join(root, "test-results-hours");
mkdirSync(out, { recursive: true });
const bad = [];
for (const [zone, changes] of Object.entries(days))
  for (const start of [...hours, ...always, ...changes]) {
    for (const part of only ? [only] : ["unit", "e2e"]) {
      const done = spawnSync(process.execPath, ["scripts/test.mjs", part], {
        cwd: root,
        env: { ...process.env, TEST_NOW: start, TEST_ZONE: zone },
        encoding: "utf8",
        maxBuffer: 1 << 28,
      });
      const text = `${done.stdout}\n${done.stderr}`;
      writeFileSync(path.join(out, `${start.replaceAll(":", "")}-${zone.replace("/", "-")}-${part}.log`), text);
      const last = done.stdout.trim().split("\n").pop() ?? "";
      say(`${start} ${zone} ${part}: ${last}`);
      if (done.status !== 0) bad.push(`${start} ${zone} ${part}: ${last}`);
    }
  }
say(bad.length === 0 ? "Every hour and day does." : `${bad.length} starts fail:\n${bad.join("\n")}`);
process.exit(bad.length === 0 ? 0 : 1);
