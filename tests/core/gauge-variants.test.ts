import { describe, expect, test } from "vitest";
import { readBathFile, readGaugeFile, readOvenFile } from "@/core/instrument-files";
import { valueOrThrow } from "@/core/result";

const lines = (...text: string[]) => `${text.join("\n")}\n`;
const um = (text: string, unit: "um" | "mil" | null = null) =>
  valueOrThrow(readGaugeFile(text, unit)).readings.map((r) => r.valueUm);

describe("where a gauge file says its unit", () => {
  const cases: [string, string, object][] = [
    ["in the heading", lines("No.,Thickness (µm)", "1,72.5", "2,73"), { unit: "um", unitFrom: "heading" }],
    ["with the other micro sign", lines("No.,Thickness (μm)", "1,72.5"), { unit: "um", unitFrom: "heading" }],
    ["as microns", lines("No.,DFT microns", "1,72.5"), { unit: "um", unitFrom: "heading" }],
    ["in mils", lines("No.,DFT mils", "1,2.9"), { unit: "mil", unitFrom: "heading" }],
    [
      "on a line before the table",
      lines("Unit;mil", "No.;Thickness", "1;2,9", "2;3,1"),
      { unit: "mil", unitFrom: "preamble" },
    ],
    ["after each reading", lines("72.1 um", "73.2 um"), { unit: "um", unitFrom: "readings" }],
    ["over one column", lines("Thickness µm", "72.1", "73.2"), { unit: "um", unitFrom: "heading" }],
    ["heading before preamble", lines("Unit,mil", "No.,Film um", "1,72"), { unit: "um", unitFrom: "heading" }],
  ];
  for (const [name, text, want] of cases)
    test(name, () => expect(valueOrThrow(readGaugeFile(text))).toMatchObject(want));
  test("nowhere: asked, and the person's word is kept as theirs", () => {
    const text = lines("No.,Thickness", "1,72.5");
    expect(readGaugeFile(text)).toMatchObject({ ok: false, error: { kind: "unit-unknown", heading: "Thickness" } });
    expect(valueOrThrow(readGaugeFile(text, "um"))).toMatchObject({ unitFrom: "person" });
  });
  test("the file's word goes before the person's", () => {
    expect(um(lines("No.,Thickness um", "1,72.5"), "mil")).toEqual([72.5]);
  });
  test("a heading in one unit over readings in another is refused", () => {
    expect(readGaugeFile(lines("Thickness um", "72", "2.9 mil"))).toMatchObject({ error: { kind: "mixed-units" } });
  });
});

describe("how a gauge file writes its numbers", () => {
  test("one column, decimal comma, under its heading: no value loses its tenths", () => {
    expect(um(lines("Film thickness µm", "72,4", "73,1", "70,0"))).toEqual([72.4, 73.1, 70]);
  });
  test("decimal commas between semicolons, tabs or quotes", () => {
    for (const row of ['1;"72,4"', "1;72,4"]) expect(um(lines("No.;Thickness um", row))).toEqual([72.4]);
    expect(um(lines("No.\tThickness um", "1\t72,4"))).toEqual([72.4]);
    expect(um(lines("No.,Thickness um", '1,"72,4"'))).toEqual([72.4]);
  });
  test("mils come out in µm without the noise of the machine's arithmetic", () => {
    expect(um(lines("No.,Value mil", "1,3.02", "2,0.1"))).toEqual([76.708, 2.54]);
  });
  test("any line ending, a byte order mark, blank lines", () => {
    const want = [72.1, 73.2];
    for (const end of ["\n", "\r\n", "\r"])
      expect(um(`\uFEFFNo.,Thickness um${end}${end}1,72.1${end}2,73.2${end}${end}`)).toEqual(want);
  });
});

describe("what a gauge left out", () => {
  test("over range, not available, no value and deleted, each with its line", () => {
    const file = valueOrThrow(
      readGaugeFile(
        lines("No.,Thickness um,Flag", "1,72.1,", "2,OVER,", "3,---,", "4,,", "5,99.0,DEL", "6,98.0,x", "7,73.1,ok"),
      ),
    );
    expect(file.readings.map((r) => r.number)).toEqual([1, 7]);
    expect(file.rejected.map(({ reading, line, why }) => [reading, line, why])).toEqual([
      [2, 3, "over range"],
      [3, 4, "not available"],
      [4, 5, "no value"],
      [5, 6, "deleted"],
      [6, 7, "deleted"],
    ]);
  });
  test("in a stream too: a deleted reading is never taken", () => {
    const file = valueOrThrow(readGaugeFile(lines("72.1 um", "250.0 deleted", "OVER", "73.0 um")));
    expect(file.readings.map((r) => r.valueUm)).toEqual([72.1, 73]);
    expect(file.rejected.map(({ line, why }) => [line, why])).toEqual([
      [2, "deleted"],
      [3, "over range"],
    ]);
  });
  test("the instrument's own summary is kept apart, not read as film", () => {
    const file = valueOrThrow(
      readGaugeFile(lines("No.,Spot,Thickness um", "1,A1,72", "2,A1,74", "Mean,73.0", "Std,1.4")),
    );
    expect(file.readings).toHaveLength(2);
    expect(file.summaryLines).toEqual(["Mean,73.0", "Std,1.4"]);
    expect(file.spots).toBe(1);
  });
  test("nothing but what was left out is an empty file", () => {
    expect(readGaugeFile(lines("No.,Thickness um", "1,OVER", "2,---"))).toMatchObject({
      error: { kind: "empty-file" },
    });
  });
});

describe("what refuses a gauge file whole", () => {
  const problems = (text: string) => {
    const got = readGaugeFile(text);
    if (got.ok) throw new Error("taken");
    return [got.error.kind, ...((got.error.problems as { line: number; why: string; text: string }[]) ?? [])];
  };
  test("a word, a negative, and more than any film, each with its line and its text", () => {
    expect(problems(lines("No.,Thickness um", "1,72", "2,seventy", "3,-4", "4,10000.5", "5,10000"))).toEqual([
      "bad-rows",
      { line: 3, why: "not a number", text: "seventy" },
      { line: 4, why: "negative", text: "-4" },
      { line: 5, why: "beyond any film", text: "10000.5" },
    ]);
  });
  test("in a stream, text after a number that is no unit", () => {
    expect(problems(lines("72.1 um", "73.2 bananas", "12 34 um"))).toEqual([
      "bad-rows",
      { line: 2, why: "not a number", text: "73.2 bananas" },
      { line: 3, why: "not a number", text: "12 34 um" },
    ]);
  });
  test("the same slip in mils is measured in µm before it is judged", () => {
    expect(problems(lines("No.,Value mil", "1,2.9", "2,400"))).toEqual([
      "bad-rows",
      { line: 3, why: "beyond any film", text: "400" },
    ]);
  });
});

describe("oven recorders", () => {
  const clock = (times: string[], unit = "C") =>
    readOvenFile(lines(`Time,Air (${unit}),Plate (${unit})`, ...times.map((t, i) => `${t},${100 + i},${50 + i}`)));
  test("seconds, minutes and hours by the clock are one time", () => {
    for (const times of [
      ["0", "10", "20"],
      ["0:00", "0:10", "0:20"],
      ["1:00:00", "1:00:10", "1:00:20"],
      ["0:59:50", "1:00:00", "1:00:10"],
    ])
      expect(valueOrThrow(clock(times)).channels[0]?.trace.timeS, times.join()).toEqual([0, 10, 20]);
  });
  test("air is known by its name, all else is metal", () => {
    expect(valueOrThrow(clock(["0", "10", "20"])).channels.map((c) => [c.name, c.medium])).toEqual([
      ["Air", "air"],
      ["Plate", "metal"],
    ]);
  });
  test("Fahrenheit by heading, by comment, by the person", () => {
    const body = ["0,212", "10,392", "20,32"];
    const temps = (text: string, unit: "degF" | null = null) =>
      valueOrThrow(readOvenFile(text, unit)).channels[0]?.trace.tempC.map((c) => Math.round((c ?? 0) * 1000) / 1000);
    for (const text of [lines("Time,Plate (°F)", ...body), lines("# Units: F", "Time,Plate", ...body)])
      expect(temps(text)).toEqual([100, 200, 0]);
    expect(readOvenFile(lines("Time,Plate", ...body))).toMatchObject({ error: { kind: "unit-unknown" } });
    expect(temps(lines("Time,Plate", ...body), "degF")).toEqual([100, 200, 0]);
  });
  test("a sample without a number stays one; the rest of its row counts", () => {
    const file = valueOrThrow(readOvenFile(lines("Time,A (C),B (C)", "0,20,20", "10,---,30", "20,40,40", "30,50,50")));
    expect(file.channels[0]?.trace.tempC).toEqual([20, null, 40, 50]);
    expect(file.channels[1]?.trace.tempC).toEqual([20, 30, 40, 50]);
  });
  test("what is no time, no number, or no oven refuses the file, each line named", () => {
    expect(readOvenFile(lines("Time,A (C)", "0,20", "noon,30", "20,warm", "30,1200", "40,50"))).toMatchObject({
      error: {
        kind: "bad-rows",
        problems: [
          { line: 3, why: "not a time", text: "noon" },
          { line: 4, why: "not a number", text: "warm" },
          { line: 5, why: "beyond any oven", text: "1200" },
        ],
      },
    });
  });
  test("without a time column the columns are named", () => {
    expect(readOvenFile(lines("Plate (C),Air (C)", "1,2", "3,4"))).toMatchObject({
      error: { kind: "no-time-column", columns: ["Plate (C)", "Air (C)"] },
    });
  });
});

describe("bath logs", () => {
  const head = "date,time,tank,parameter,value,unit,by";
  const log = (...rows: string[]) => readBathFile(lines(head, ...rows));
  test("tanks and parameters under their several names", () => {
    const file = valueOrThrow(
      log(
        "2026-05-06,06:15,T3,pH,5.1,,AB",
        "2026-05-06,06:15,tank 3,temp,48,°C,AB",
        "2026-05-06,06:15,Tank 3,Cond,900,µS/cm,AB",
        "2026-05-06,06:15,t.3,titration,2.1,%,AB",
      ),
    );
    expect(file.tanks).toEqual(["Tank 3"]);
    expect(file.readings.map((r) => r.parameter)).toEqual(["ph", "temperature", "conductivity", "concentration"]);
    expect(file.readings.map((r) => r.typedUnit)).toEqual(["", "°C", "µS/cm", "%"]);
  });
  test("a unit that is not the parameter's, a day that is none, a parameter unknown: each line named", () => {
    expect(
      log(
        "2026-05-06,06:15,T3,pH,5.1,,AB",
        "2026-05-06,06:15,T3,temperature,48,µm,AB",
        "2026-02-30,06:15,T3,pH,5.1,,AB",
        "2026-05-06,noon,T3,pH,5.1,,AB",
        "2026-05-06,06:15,T3,colour,5.1,,AB",
        "2026-05-06,06:15,T3,pH,sour,,AB",
      ),
    ).toMatchObject({
      error: {
        kind: "bad-rows",
        problems: [
          { line: 3, why: "unit does not fit" },
          { line: 4, why: "not a date and time" },
          { line: 5, why: "not a date and time" },
          { line: 6, why: "unknown parameter", text: "colour" },
          { line: 7, why: "not a number", text: "sour" },
        ],
      },
    });
  });
  test("month first, once a date shows it; both ways in one file is refused", () => {
    const at = (...rows: string[]) => valueOrThrow(log(...rows)).readings.map((r) => r.at);
    expect(at("05/06/2026,06:15,T3,pH,5.1,,", "05/16/2026,06:15,T3,pH,5.1,,")).toEqual([
      "2026-05-06T06:15",
      "2026-05-16T06:15",
    ]);
    expect(log("13/06/2026,06:15,T3,pH,5.1,,", "05/16/2026,06:15,T3,pH,5.1,,")).toMatchObject({
      error: { kind: "mixed-dates" },
    });
  });
  test("a missing column is named", () => {
    expect(readBathFile(lines("date,time,tank,value", "2026-05-06,06:15,T3,5.1"))).toMatchObject({
      error: { kind: "missing-columns", missing: ["parameter"] },
    });
  });
  test("what was not measured is left out and listed", () => {
    const file = valueOrThrow(log("2026-05-06,06:15,T3,pH,n/a,,AB", "2026-05-06,07:15,T3,pH,5.2,,AB"));
    expect(file.readings).toHaveLength(1);
    expect(file.skipped).toMatchObject([{ line: 2, why: "not available" }]);
  });
});
