import { renderToStaticMarkup } from "react-dom/server";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { readinessByHour } from "@/server/baths/wash-readiness";
import { loadLine } from "@/server/line/load-line";
import { railFacts } from "@/server/line/rail-facts";
import { now } from "@/server/now";
import { judgeRack } from "@/server/rack/judge-rack";
import { atPass, loadRack } from "@/server/rack/load-rack";
import { recentRecords } from "@/server/search/recent";
import { siteAt } from "@/server/setup/setup-data";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { SeriesChart, SeriesWords } from "@/ui/bath/bath-panel";
import { ReadinessChart } from "@/ui/bath/readiness-chart";
import { clock } from "@/ui/format";
import { sayRecord } from "@/ui/kinds/say-record";
import { beadsOf } from "@/ui/rack/beads";
import { Thread } from "@/ui/rack/thread";
import { dueList } from "@/ui/shift/due-list";
import { person, type TestDatabase, testDatabase } from "../support/database";

let t: TestDatabase;
const at = now();
const lead = person("lead", "ines");
const timeZone = "Europe/London";
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const text = (html: string): string => html.replace(/<[^>]+>/g, " ").replace(/\s+/g, " ");
/** Nothing a person reads is a figure that is none, a code in the words' place, or an object. */
function readable(html: string, what: string): string {
  const said = text(html);
  expect(said, what).not.toMatch(/NaN|Infinity|undefined|\[object|\bnull\b/);
  return said;
}

describe("the demo's whole record as it is read", () => {
  test("every rack's thread, in both units: each bead says something, and metric words stay out of US ones", async () => {
    const racks = await t.app.selectFrom("rack").select("number").orderBy("number").execute();
    expect(racks.length).toBeGreaterThan(100);
    let measured = 0;
    for (const { number } of racks) {
      const rack = await loadRack(t.app, lead, number);
      if (!rack) throw new Error(number);
      const [conditions, site] = await Promise.all([
        conditionsWhenPassed(t.app, [rack.id], rack.hungAt),
        siteAt(t.app, rack.hungAt),
      ]);
      for (const units of ["metric", "us"] as const) {
        const beads = rack.passes.flatMap((_, i) => {
          const then = atPass(rack, i);
          return beadsOf({
            rack: then,
            verdict: judgeRack(then, conditions),
            conditions,
            limits: site,
            earthLimitMohm: 1,
            units,
            timeZone,
          });
        });
        expect(new Set(beads.map((b) => b.key)).size, number).toBe(beads.length);
        expect(beads[0]?.stage).toBe("Plan");
        for (const bead of beads) {
          const said = readable(renderToStaticMarkup(<span>{bead.text}</span>), `${number}, ${bead.key}`);
          expect(said.trim().length, `${number}, ${bead.key}`).toBeGreaterThan(3);
          if (bead.grade === "unknown") expect(bead.result, `${number}, ${bead.key}`).not.toBe("in");
        }
        const thread = readable(renderToStaticMarkup(<Thread beads={beads} />), number);
        if (/\d µm|\d °C/.test(thread)) measured++;
        if (units === "us") expect(thread, number).not.toMatch(/\d µm|\d °C/);
      }
    }
    expect(measured).toBeGreaterThan(50);
  }, 90_000);

  test("every bath's charts and words, in both units", async () => {
    const line = await loadLine(t.app, lead, at);
    expect(line.baths.length).toBeGreaterThan(1);
    for (const file of line.baths)
      for (const series of file.series)
        for (const units of ["metric", "us"] as const) {
          const what = `${file.bath.code}, ${series.parameter}, ${units}`;
          const props = { series, now: line.at, timeZone, units };
          const chart = renderToStaticMarkup(<SeriesChart {...props} file={file} />);
          readable(chart, what);
          expect(chart, what).not.toMatch(/"NaN|NaN"/);
          const said = readable(renderToStaticMarkup(<SeriesWords {...props} />), what);
          expect(said, what).toMatch(/(Next check|A check was due) (\d\d:\d\d|\d+ \w+ \d\d:\d\d|at the round) by/);
          if (units === "us") expect(said, what).not.toContain("°C");
        }
    const hours = readinessByHour(line.baths, at);
    readable(renderToStaticMarkup(<ReadinessChart hours={hours} timeZone={timeZone} />), "readiness");
    for (const hour of hours) {
      if (hour.index === null) continue;
      expect(hour.index).toBeGreaterThanOrEqual(0);
      expect(hour.index).toBeLessThanOrEqual(100);
    }
  });

  test("Shift and the rail: every due item has what, why and a word; every stage one short fact", async () => {
    const line = await loadLine(t.app, lead, at);
    const due = dueList(line, "metric");
    expect(due.length).toBeGreaterThan(5);
    for (const item of due) {
      for (const said of [item.what, item.why, item.word]) {
        expect(said.length, item.what).toBeGreaterThan(2);
        readable(said, item.what);
      }
      expect(item.href, item.what).toMatch(/^\/[a-z0-9/-]+(\?stage=[a-z]+)?(#[A-Z0-9-]+)?$/);
    }
    const toCome = due.flatMap((d) => (d.atMs === null || d.atMs <= line.at.getTime() ? [] : [d.atMs]));
    expect(toCome).toEqual([...toCome].sort((a, b) => a - b));
    for (const { id, fact } of railFacts(line, (d) => clock(d, timeZone)).stages) {
      readable(`${fact.text ?? fact.prefix}`, id);
      expect((fact.text ?? fact.prefix).length, id).toBeLessThan(22);
    }
  });

  test("every record has a sentence of its own, not the name of its kind alone where it holds more", async () => {
    const records = await recentRecords(t.app, lead, at, 3000);
    expect(records.length).toBeGreaterThan(2000);
    const kinds = new Set(records.map((r) => r.kind));
    for (const kind of ["passage", "bath-check", "bath-event", "thickness", "bake", "coat", "disposition", "offer"])
      expect(kinds, kind).toContain(kind);
    for (const record of records) {
      const said = sayRecord(record, "metric");
      readable(said, record.kind);
      expect(said.length, record.kind).toBeGreaterThan(3);
      if (record.kind === "passage") expect(said).toMatch(/^into [a-z ]+$/);
      if (record.kind === "thickness") expect(said).toMatch(/^film, \d+ readings?$/);
    }
  });
});
