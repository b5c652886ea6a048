import { describe, expect, test } from "vitest";
import {
  dateOf,
  fileKindOf,
  guessLayout,
  momentsOfLocal,
  nearestTimeOfDay,
  orderOf,
  readTrace,
  startSaid,
  type TraceLayout,
  timeOfDay,
  traceTable,
} from "@/core/instrument-files";
import { valueOrThrow } from "@/core/result";

const lines = (...l: string[]) => `${l.join("\n")}\n`;
const LONDON = "Europe/London";
const read = (text: string, over: Partial<TraceLayout> = {}, zone = LONDON) => {
  const table = traceTable(text);
  return readTrace(table, { ...guessLayout(table), ...over }, zone);
};
const iso = (s: number | null | undefined) => new Date((s ?? Number.NaN) * 1000).toISOString();

describe("moments as files write them", () => {
  test("dates in any order, with names of months, of two digits, and none of them", () => {
    const day = (text: string, order: "dmy" | "mdy" | "ymd") => {
      const d = dateOf(text, order);
      return d && new Date(d.day * 86_400_000).toISOString().slice(0, 10);
    };
    expect(day("03/04/2026", "dmy")).toBe("2026-04-03");
    expect(day("03/04/2026", "mdy")).toBe("2026-03-04");
    expect(day("2026-04-03", "mdy")).toBe("2026-04-03");
    expect(day("3 Apr 2026", "mdy")).toBe("2026-04-03");
    expect(day("April 3, 2026", "dmy")).toBe("2026-04-03");
    expect(day("26.04.03", "ymd")).toBe("2026-04-03");
    expect(day("03.04.26", "dmy")).toBe("2026-04-03");
    for (const bad of ["31/02/2026", "13/13/2026", "2026-04", "12:30", "200", "3 Foo 2026"])
      expect(day(bad, "dmy")).toBeNull();
  });
  test("times of day, with am and pm, fractions and a zone", () => {
    expect(timeOfDay("12:05 am")?.seconds).toBe(300);
    expect(timeOfDay("1:05:30 PM")?.seconds).toBe(13 * 3600 + 330);
    expect(timeOfDay("00:00:07,5")?.seconds).toBe(7.5);
    expect(timeOfDay("14:02:11+02:00")).toEqual({ seconds: 50_531, parts: 3, zone: "+02:00" });
    for (const bad of ["14", "14:61", "13:00 pm", "noon"]) expect(timeOfDay(bad)).toBeNull();
  });
  test("the order of day and month is what some date allows, or nobody's guess", () => {
    expect(orderOf(["03/04/2026", "13/04/2026"])).toBe("dmy");
    expect(orderOf(["03/04/2026", "03/14/2026"])).toBe("mdy");
    expect(orderOf(["03/04/2026"])).toBeNull();
    expect(orderOf(["2026-04-03"])).toBe("ymd");
  });
  test("the hour that is there twice has two moments, every other one", () => {
    const local = (text: string) => Date.parse(`${text}Z`);
    expect(momentsOfLocal(local("2026-10-25T01:30:00"), LONDON).map((m) => new Date(m).toISOString())).toEqual([
      "2026-10-25T00:30:00.000Z",
      "2026-10-25T01:30:00.000Z",
    ]);
    expect(momentsOfLocal(local("2026-10-25T03:30:00"), LONDON)).toHaveLength(1);
    expect(
      momentsOfLocal(local("2026-07-01T12:00:00"), "America/St_Johns").map((m) => new Date(m).toISOString()),
    ).toEqual(["2026-07-01T14:30:00.000Z"]);
  });
  test("a time of day is of the day nearest to the door", () => {
    const door = Date.parse("2026-05-06T00:10:00Z");
    expect(new Date(nearestTimeOfDay(door, 23 * 3600 + 55 * 60)).toISOString()).toBe("2026-05-05T23:55:00.000Z");
    expect(new Date(nearestTimeOfDay(door, 15 * 60)).toISOString()).toBe("2026-05-06T00:15:00.000Z");
  });
});

describe("traces with headings of any kind", () => {
  test("dates, decimal commas, a line of units and words of its own before the table", () => {
    const text = lines(
      "Recorder R6;;",
      "Start: 12.11.2026 14:02:00;;",
      "Datum;Uhrzeit;Kanal 1;Luft oben;Feuchte %",
      ";;°C;°C;",
      "13.11.2026;14:02:00;20,5;60,0;41",
      "13.11.2026;14:02:30;40,5;120,0;40",
      "13.11.2026;14:03:00;80,5;180,0;39",
    );
    const table = traceTable(text);
    const layout = guessLayout(table);
    expect(layout).toMatchObject({ form: "date-time", order: "dmy", unit: "degC", mark: "," });
    expect(layout.columns.map((c) => c.is)).toEqual(["date", "time", "metal", "air", "left-out"]);
    const file = valueOrThrow(read(text));
    expect(iso(file.startEpochS)).toBe("2026-11-13T14:02:00.000Z");
    expect(file.channels.map((c) => [c.name, c.medium, c.trace.tempC])).toEqual([
      ["Kanal 1", "metal", [20.5, 40.5, 80.5]],
      ["Luft oben", "air", [60, 120, 180]],
    ]);
    expect(file.channels[0]?.trace.timeS).toEqual([0, 30, 60]);
    expect(file.columnsLeftOut).toEqual(["Feuchte %"]);
    expect(file.leftOut.map((l) => l.line)).toEqual([1, 2]);
    expect(startSaid(table, null)).toBeNull();
    expect(iso(startSaid(table, "dmy"))).toBe("2026-11-12T14:02:00.000Z");
  });
  test("a file that leaves something open is asked about, never guessed", () => {
    const body = ["03/04/2026 10:00:00,150", "03/04/2026 10:01:00,160", "03/04/2026 10:02:00,170"];
    expect(read(lines("When,Probe A (°C)", ...body))).toMatchObject({
      error: { kind: "ambiguous-dates", example: "03/04/2026 10:00:00" },
    });
    expect(iso(valueOrThrow(read(lines("When,Probe A (°C)", ...body), { order: "mdy" })).startEpochS)).toBe(
      "2026-03-04T10:00:00.000Z",
    );
    expect(read(lines("When,Probe A", ...body), { order: "dmy" })).toMatchObject({ error: { kind: "unit-unknown" } });
    expect(read(lines("Probe A (°C),Probe B (°C)", "20,30", "25,28", "22,31"))).toMatchObject({
      error: { kind: "no-time-column" },
    });
    expect(read(lines("Time,Status", "0,ok", "10,ok", "20,ok"))).toMatchObject({
      error: { kind: "no-temperature-column" },
    });
    expect(read(lines("Time,Part (C),Part (C)", "0,20,30", "10,40,50", "20,60,70"))).toMatchObject({
      error: { kind: "channel-named-twice" },
    });
  });
  test("a letter of a word is no unit, nor is a line of headings a line of units", () => {
    const text = lines(
      "Schreiber 4;Halle 1;;",
      "Zeitpunkt;Umluft;Fühler 1;Lüfter C",
      "0:00:00;20;20;400",
      "0:00:30;90;40;401",
      "0:01:00;150;60;402",
    );
    const table = traceTable(text);
    expect(table.headings).toEqual(["Zeitpunkt", "Umluft", "Fühler 1", "Lüfter C"]);
    expect(guessLayout(table).unit).toBeNull();
    expect(guessLayout(traceTable(lines("t;Fühler", "[s];[°F]", "0;70", "10;90", "20;110"))).unit).toBe("degF");
    expect(guessLayout(traceTable(lines("t;Fühler (deg C)", "0;70", "10;90", "20;110"))).unit).toBe("degC");
    expect(fileKindOf(text)).toBe("oven");
  });
  test("each way of telling the time", () => {
    const times = (heading: string, cells: readonly string[], over: Partial<TraceLayout> = {}) => {
      const file = valueOrThrow(
        read(lines(`${heading};Part °C`, ...cells.map((c, i) => `${c};${100 + i * 10}`)), over),
      );
      return { timeS: file.channels[0]?.trace.timeS, start: file.startEpochS, ofDay: file.startTimeOfDayS };
    };
    expect(times("Seconds", ["0", "15", "30"])).toEqual({ timeS: [0, 15, 30], start: null, ofDay: null });
    expect(times("Minutes", ["0", "0.5", "1"]).timeS).toEqual([0, 30, 60]);
    expect(times("Elapsed", ["0:00:00", "0:00:30", "0:01:00"])).toEqual({
      timeS: [0, 30, 60],
      start: null,
      ofDay: null,
    });
    expect(times("Clock", ["23:59:30", "0:00:00", "0:00:30"])).toEqual({
      timeS: [0, 30, 60],
      start: null,
      ofDay: 86_370,
    });
    expect(times("Unix time", ["1794576000", "1794576030", "1794576060"]).start).toBe(1_794_576_000);
    expect(times("t", ["1794576000000", "1794576030000", "1794576060000"]).start).toBe(1_794_576_000);
    // 45,973.5 days of a spreadsheet are noon of 12 November 2025.
    const days = times("Time", ["45973.5", "45973.50034722", "45973.50069444"]);
    expect(iso(days.start)).toBe("2025-11-12T12:00:00.000Z");
    expect(days.timeS?.map((s) => Math.round(s))).toEqual([0, 30, 60]);
    expect(iso(times("Zeit", ["2026-07-01 12:00", "2026-07-01 12:01", "2026-07-01 12:02"]).start)).toBe(
      "2026-07-01T11:00:00.000Z",
    );
    expect(
      iso(times("Zeit", ["2026-07-01 12:00", "2026-07-01 12:01", "2026-07-01 12:02"], { zone: "utc" }).start),
    ).toBe("2026-07-01T12:00:00.000Z");
    expect(
      iso(times("at", ["2026-07-01T12:00:00+05:30", "2026-07-01T12:01:00+05:30", "2026-07-01T12:02:00+05:30"]).start),
    ).toBe("2026-07-01T06:30:00.000Z");
  });
  test("over the night that an hour is there twice its rows keep their order and their distance", () => {
    const at = ["2026-10-25 01:40", "2026-10-25 01:50", "2026-10-25 01:00", "2026-10-25 01:10"];
    const file = valueOrThrow(read(lines("When,Part (C)", ...at.map((t, i) => `${t},${100 + i}`))));
    expect(file.channels[0]?.trace).toEqual({ timeS: [0, 600, 1200, 1800], tempC: [100, 101, 102, 103] });
    expect(file.reordered).toBe(false);
  });
  test("what is left out is said: repeats, a cut line, the count of its rows", () => {
    const file = valueOrThrow(
      read(lines("No.,Time,Door,Part (C)", "1,0,shut,20", "2,10,shut,40", "2,10,shut,40", "4,20,shut,60", "5,30")),
    );
    expect(file).toMatchObject({ duplicatesDropped: 1, cutOff: true, samples: 3, columnsLeftOut: ["No.", "Door"] });
    expect(file.leftOut.map((l) => l.line)).toEqual([6]);
  });
  test("a column taken for metal that holds a speed is left out by who looks at it", () => {
    const text = lines("Time,Part (C),Fan", "0,20,1450", "10,40,1450", "20,60,1450");
    expect(read(text)).toMatchObject({ error: { kind: "bad-rows" } });
    const layout = guessLayout(traceTable(text));
    const columns = layout.columns.map((c) => (c.name === "Fan" ? { ...c, is: "left-out" as const } : c));
    expect(valueOrThrow(read(text, { columns })).channels).toHaveLength(1);
  });
});

describe("what is taken from the values where headings say nothing", () => {
  const form = (cells: readonly string[], heading = "x") =>
    guessLayout(traceTable(lines(`${heading};Part °C`, ...cells.map((c, i) => `${c};${100 + i * 10}`)))).form;
  test("moments since 1970 in s or ms, days of a spreadsheet, or nothing", () => {
    expect(form(["1500000000", "1500000030", "1500000060"])).toBe("epoch-s");
    expect(form(["150000000000", "150000030000", "150000060000"])).toBe("epoch-ms");
    expect(form(["20001", "20001.1", "20001.2"])).toBe("spreadsheet-days");
    expect(form(["45000", "45001", "45002.9"])).toBe("spreadsheet-days");
    // More than three days is no bake; fewer or more of them is no day of this age.
    expect(form(["45000", "45001", "45003.1"])).toBeNull();
    expect(form(["20000", "20000.1", "20000.2"])).toBeNull();
    expect(form(["80000", "80000.1", "80000.2"])).toBeNull();
    expect(form(["900000000", "900000030", "900000060"])).toBeNull();
    // What falls is no clock, whatever its size.
    expect(form(["1500000060", "1500000030", "1500000000"])).toBeNull();
    // Named as a time, small numbers are seconds, or minutes where it says so.
    expect(form(["0", "10", "20"], "t")).toBe("elapsed-s");
    expect(form(["0", "10", "20"], "Time, min")).toBe("elapsed-min");
    expect(form(["100", "110", "120"], "Unix")).toBe("epoch-s");
  });
  test("a clock that begins near nought is the recorder's own, one that begins later hangs on the wall", () => {
    expect(form(["0:05:00", "0:05:30", "0:06:00"])).toBe("elapsed-clock");
    expect(form(["0:05:01", "0:05:31", "0:06:01"])).toBe("time-of-day");
    // Without seconds it may be minutes and seconds: an hour of it is.
    expect(form(["1:00", "1:30", "2:00"])).toBe("elapsed-clock");
    expect(form(["1:01", "1:31", "2:01"])).toBe("time-of-day");
    expect(form(["0:00:00", "0:00:30", "0:01:00"], "Time of day")).toBe("time-of-day");
  });
  test("rows counted from nought or one are no channel; counted from elsewhere, or not one by one, they are", () => {
    const roles = (cells: readonly string[]) =>
      guessLayout(
        traceTable(lines("t;a;Part °C", ...cells.map((c, i) => `${i * 10};${c};${100 + i * 10}`))),
      ).columns.map((c) => c.is);
    expect(roles(["0", "1", "2", "3"])).toEqual(["time", "left-out", "metal"]);
    expect(roles(["1", "2", "3", "4"])).toEqual(["time", "left-out", "metal"]);
    expect(roles(["2", "3", "4", "5"])).toEqual(["time", "metal", "metal"]);
    expect(roles(["1", "2", "3", "5"])).toEqual(["time", "metal", "metal"]);
    expect(roles(["1", "2", "3"])).toEqual(["time", "metal", "metal"]);
  });
  test("a heading that names UTC sets its clock there; what is said of the unit before the table counts", () => {
    const text = (heading: string, ...before: string[]) =>
      lines(...before, `${heading},Part`, "2026-07-01 12:00,150", "2026-07-01 12:01,160", "2026-07-01 12:02,170");
    expect(guessLayout(traceTable(text("Time (UTC)"))).zone).toBe("utc");
    expect(guessLayout(traceTable(text("Time"))).zone).toBe("shop");
    expect(guessLayout(traceTable(text("Time", "Unit: F,"))).unit).toBe("degF");
    expect(guessLayout(traceTable(text("Time", "# Einheit = °C"))).unit).toBe("degC");
    expect(guessLayout(traceTable(text("Time", "Operator C,"))).unit).toBeNull();
  });
  test("west of Greenwich is later; rows out of order are put in order, and it is said", () => {
    const at = (zone: string) => ["12:00", "12:02", "12:01"].map((t) => `2026-07-01T${t}:00${zone}`);
    const file = (zone: string) =>
      valueOrThrow(read(lines("at;Part °C", ...at(zone).map((t, i) => `${t};${100 + i * 10}`))));
    expect(iso(file("-05:30").startEpochS)).toBe("2026-07-01T17:30:00.000Z");
    expect(iso(file("+01:00").startEpochS)).toBe("2026-07-01T11:00:00.000Z");
    expect(file("Z").channels[0]?.trace).toEqual({ timeS: [0, 60, 120], tempC: [100, 120, 110] });
    expect(file("Z").reordered).toBe(true);
  });
  test("two different rows at one time refuse the file, by their lines; a value no oven reaches too", () => {
    const problems = (...rows: string[]) => {
      const file = read(lines("t,Part (C)", ...rows));
      return file.ok ? [] : (file.error.problems as { line: number; why: string }[]).map((p) => [p.line, p.why]);
    };
    expect(problems("0,20", "10,30", "10,31", "20,40")).toEqual([[4, "another reading at the same time as line 3"]]);
    expect(problems("0,-60", "10,1000")).toEqual([]);
    expect(problems("0,-61", "10,1001")).toEqual([
      [2, "beyond any oven"],
      [3, "beyond any oven"],
    ]);
    expect(problems("0,20", "5,25", "10,warm", ...["20,30", "30,40", "40,50"])).toEqual([[4, "not a number"]]);
  });
});

describe("what a file is of", () => {
  test("is told by what it holds", () => {
    expect(fileKindOf(lines("No,Thickness (um)", "1,70", "2,71"))).toBe("gauge");
    expect(fileKindOf(lines("72.1", "70.3"))).toBe("gauge");
    expect(fileKindOf(lines("Time,Reading,DFT µm", "10:00:00,1,70", "10:00:05,2,71"))).toBe("gauge");
    expect(
      fileKindOf(lines("Date;Value 1;Value 2", "2026-01-02 10:00;150,5;160", "2026-01-02 10:01;151;161")),
    ).toBeNull();
    expect(
      fileKindOf(lines("Date;Value 1 (°C);Value 2 (°C)", "2026-01-02 10:00;150,5;160", "2026-01-02 10:01;151;161")),
    ).toBe("oven");
    expect(fileKindOf(lines("Film oven 2,t", "150,0", "151,30"))).toBeNull();
    expect(fileKindOf(lines("Elapsed,Air (C),Thick (C),Thin (C)", "0,20,20,20", "30,90,40,50"))).toBe("oven");
    expect(fileKindOf(lines("date,time,tank,parameter,value", "2026-01-02,06:00,T3,pH,5.1"))).toBe("bath");
    expect(fileKindOf("")).toBe("gauge");
  });
});
