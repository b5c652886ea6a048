import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { cureIndex, fitCureCurve, holdAt } from "@/core/cure";
import { readBathFile, readGaugeFile, readOvenFile } from "@/core/instrument-files";
import { valueOrThrow } from "@/core/result";
import { mean } from "@/core/statistics";

const sample = (name: string) => readFileSync(`tests/samples/${name}`, "utf8");
const expected = JSON.parse(sample("expected.json"));
const curve = (pairs: number[][]) =>
  valueOrThrow(
    fitCureCurve(pairs.map(([metalC, minutes]) => ({ metalC: metalC as number, minutes: minutes as number }))),
  );

describe("gauge files", () => {
  for (const name of ["gauge-semicolon.csv", "gauge-mil.csv", "gauge-stream.txt"]) {
    test(name, () => {
      const want = expected[name];
      const got = valueOrThrow(readGaugeFile(sample(name)));
      const um = got.readings.map((r) => r.valueUm);
      expect(um.length).toBe(want.readings);
      expect(mean(um)).toBeCloseTo(want.meanUm, 4);
      if (want.unit) expect(got.unit).toBe(want.unit);
      if (want.spots) expect(got.spots).toBe(want.spots);
      if (want.firstUm) expect([um[0], um[um.length - 1]]).toEqual([want.firstUm, want.lastUm]);
      if (want.minUm) expect([Math.min(...um), Math.max(...um)]).toEqual([want.minUm, want.maxUm]);
      expect(got.rejected.map(({ reading, line, why }) => ({ reading, line, why }))).toEqual(want.rejected ?? []);
    });
  }
  test("a broken file is refused whole, each line named", () => {
    const got = readGaugeFile(sample("gauge-broken.csv"));
    expect(got.ok).toBe(false);
    if (got.ok) return;
    expect((got.error.problems as { line: number; why: string }[]).map(({ line, why }) => ({ line, why }))).toEqual(
      expected["gauge-broken.csv"].problems,
    );
  });
  test("no unit anywhere is asked about, not guessed", () => {
    expect(readGaugeFile("72.1\n73.2\n")).toMatchObject({ ok: false, error: { kind: "unit-unknown" } });
    expect(valueOrThrow(readGaugeFile("2.8\n3.0\n", "mil")).readings[0]?.valueUm).toBeCloseTo(71.12, 9);
  });
  test("two units in one stream are refused", () => {
    expect(readGaugeFile("72.1 um\n2.9 mil\n")).toMatchObject({ ok: false, error: { kind: "mixed-units" } });
  });
  test("nothing, prose and a lone heading are refused", () => {
    for (const text of ["", "\n\n", "No,Thickness um\n", "dear sir\nplease find\n"])
      expect(readGaugeFile(text).ok).toBe(false);
  });
});

describe("oven files", () => {
  test("six channels: gap, dead channel, index and holds", () => {
    const want = expected["oven-six-channel.csv"];
    const got = valueOrThrow(readOvenFile(sample("oven-six-channel.csv")));
    expect(got).toMatchObject({ unit: want.unit, samples: want.samples });
    expect(got.channels.length).toBe(want.channels);
    for (const channel of got.channels) if (channel.deadFromS === null) expect(channel.gapsS).toEqual(want.gapS);
    expect(got.channels.filter((c) => c.deadFromS !== null).map((c) => ({ name: c.name, fromS: c.deadFromS }))).toEqual(
      [want.deadChannel],
    );
    for (const [name, figures] of Object.entries(want.byChannel) as [
      string,
      { cureIndexGapNotBridged: number; holdAt200: { totalS: number; longestS: number } },
    ][]) {
      const trace = got.channels.find((c) => c.name === name)?.trace;
      if (!trace) throw new Error(name);
      const index = valueOrThrow(cureIndex(trace, curve(want.schedule), want.onsetC)).index;
      expect(Math.abs(index / figures.cureIndexGapNotBridged - 1)).toBeLessThan(0.005);
      const hold = valueOrThrow(holdAt(trace, 200));
      expect(Math.abs(hold.totalS - figures.holdAt200.totalS)).toBeLessThan(0.5);
      expect(Math.abs(hold.longestS - figures.holdAt200.longestS)).toBeLessThan(0.5);
    }
  });
  test("Fahrenheit, out of order, one row twice", () => {
    const want = expected["oven-fahrenheit.tsv"];
    const got = valueOrThrow(readOvenFile(sample("oven-fahrenheit.tsv")));
    expect(got).toMatchObject({
      unit: want.unit,
      samples: want.samples,
      duplicatesDropped: want.duplicatesDropped,
      reordered: want.reordered,
    });
    expect(got.channels.length).toBe(want.channels);
    const t1 = got.channels[0]?.trace;
    if (!t1) throw new Error("no channel");
    expect(Math.max(...(t1.tempC as number[]))).toBeCloseTo(want.t1PeakC, 2);
    // The reference figure belongs to a one-point sheet, 10 min at 200 °C, with its onset 40 °C below.
    const index = valueOrThrow(cureIndex(t1, curve([[200, 10]]), 160)).index;
    expect(Math.abs(index / want.cureIndexT1 - 1)).toBeLessThan(0.005);
  });
  test("two different rows at one time refuse the file", () => {
    expect(readOvenFile("epoch\tT1 (C)\n1\t20\n2\t30\n2\t31\n3\t40\n")).toMatchObject({
      ok: false,
      error: { kind: "bad-rows" },
    });
  });
});

describe("bath logs", () => {
  test("day first, tanks under several names, °F and thousands separators", () => {
    const want = expected["bath-log.csv"];
    const got = valueOrThrow(readBathFile(sample("bath-log.csv")));
    expect(got.readings.length).toBe(want.readings);
    expect(got.skipped.length).toBe(want.skipped.length);
    expect(got.dayFirst).toBe(want.dayFirst);
    expect(got.tanks).toEqual(want.tanks);
    expect(got.readings[0]).toMatchObject({ at: "2026-05-06T06:15", tank: "Tank 3", parameter: "ph", value: 4.81 });
    expect(got.readings[1]?.value).toBeCloseTo(51.667, 3);
    expect(got.readings[2]?.value).toBe(1233);
  });
  test("dates that could mean two things are asked about", () => {
    const text = "date,time,tank,parameter,value\n01/02/2026,06:00,T3,pH,5.1\n";
    expect(readBathFile(text)).toMatchObject({ ok: false, error: { kind: "ambiguous-dates" } });
    expect(valueOrThrow(readBathFile(text, false)).readings[0]?.at).toBe("2026-01-02T06:00");
  });
  test("a pH of 51 is a slip and refuses the file", () => {
    expect(readBathFile("date,time,tank,parameter,value\n2026-01-02,06:00,T3,pH,51\n")).toMatchObject({
      ok: false,
      error: { kind: "bad-rows" },
    });
  });
});
