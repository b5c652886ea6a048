import { afterAll, beforeAll, test } from "vitest";
import { writeFileSync } from "node:fs";
import { proposals } from "@/server/causes/board";
import { openCase } from "@/server/causes/case-actions";
import { loadCase } from "@/server/causes/load-case";
import { heldColumns } from "@/server/causes/held-columns";
import { now } from "@/server/now";
import { person, type TestDatabase, testDatabase } from "../support/database";
let t: TestDatabase;
const lead = person("lead", "ines");
beforeAll(async () => { t = await testDatabase(); });
afterAll(() => t.drop());
test("stories", async () => {
  let out = "";
  await heldColumns(t.app, now());
  for (const p of await proposals(t.app, lead)) {
    const c = await openCase(t.app, lead, { defectRecordId: p.items[0]!.id, zone: "", alike: p.items.slice(1).map((i) => i.id) }, now());
    if (!c.ok) { out += JSON.stringify(c) + "\n"; continue; }
    const t0 = performance.now();
    const f = await loadCase(t.app, lead, (c as any).href.split("/").pop());
    const ms = performance.now() - t0;
    out += `\n## ${p.defect} ${p.items.length} items, ${p.items[0]!.partName}, ${p.severity}, shared ${p.shared} :: ${p.items[0]!.note} | ${ms.toFixed(0)} ms\n`;
    out += `  ${f!.diagnosis.enoughToTell ? "ENOUGH" : "weak"} ` + f!.diagnosis.causes.slice(0, 5).map((x) => `${x.cause} ${x.strength.toFixed(2)}`).join(", ") + "\n";
    out += "  present: " + f!.established.filter((e) => e.state === "present").map((e) => e.finding + (e.among ? ` ${e.among.withIt}/${e.among.of}` : "")).join(", ") + "\n";
    out += "  next: " + f!.diagnosis.nextChecks.map((n) => n.finding).join(", ") + "\n";
  }
  writeFileSync("/tmp/stories.txt", out);
}, 120000);
