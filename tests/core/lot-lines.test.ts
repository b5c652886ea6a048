import { describe, expect, test } from "vitest";
import { readDay, readLotLines } from "@/core/powder";
import { valueOrThrow } from "@/core/result";

const today = "2026-11-26";
const read = (text: string) => readLotLines(text, today);

describe("a day as it is written", () => {
  test.each([
    ["2026-03-02", "2026-03-02"],
    ["2026-3-2", "2026-03-02"],
    ["02.03.2026", "2026-03-02"],
    [" 25/3/2026 ", "2026-03-25"],
    ["3/25/2026", "2026-03-25"],
    ["4/4/2026", "2026-04-04"],
    ["29.2.2028", "2028-02-29"],
  ])("%s is %s", (text, day) => {
    expect(valueOrThrow(readDay(text))).toBe(day);
  });
  test("2/3/2026 could be two days: it is asked about, with both, never guessed", () => {
    expect(readDay("2/3/2026")).toEqual({
      ok: false,
      error: { kind: "date-of-two", text: "2/3/2026", dayFirst: "2026-03-02", monthFirst: "2026-02-03" },
    });
    expect(readDay("12/11/2026")).toMatchObject({ error: { kind: "date-of-two" } });
  });
  test.each([
    "",
    "31.2.2026",
    "13/13/2026",
    "2026/03/02",
    "02-03-2026",
    "March 2",
    "0.0.2026",
    "32/1/2026",
    "29.2.2026",
  ])("%j is none", (text) => {
    expect(readDay(text)).toMatchObject({ ok: false, error: { kind: "not-a-date" } });
  });
});

describe("lots pasted as a table", () => {
  test("headings as shops write them, any of three separators, what is left out", () => {
    expect(
      valueOrThrow(read("Code;Batch;Made on;Received on;Stock kg\nGR-505;A-1;2026-10-01;05.10.2026;12,5")),
    ).toEqual([{ powder: "GR-505", lot: "A-1", madeOn: "2026-10-01", receivedOn: "2026-10-05", stockKg: 12.5 }]);
    expect(valueOrThrow(read("powder,lot,produced\nGR-505,A-1,2026-10-01\n\nGR-210, B-2 ,2026-10-02"))).toEqual([
      { powder: "GR-505", lot: "A-1", madeOn: "2026-10-01", receivedOn: today, stockKg: null },
      { powder: "GR-210", lot: "B-2", madeOn: "2026-10-02", receivedOn: today, stockKg: null },
    ]);
    expect(valueOrThrow(read("product\tlot\tmade\tkg\nGR-505\tA\t2026-10-01\t20"))[0]?.stockKg).toBe(20);
  });
  test.each([
    ["", { kind: "empty" }],
    ["powder,lot,made", { kind: "empty" }],
    ["powder,lot,made,colour\nA,B,2026-10-01,red", { kind: "unknown-heading", heading: "colour" }],
    ["powder,lot\nA,B", { kind: "no-heading", what: "madeOn" }],
    ["lot,made\nA,2026-10-01", { kind: "no-heading", what: "powder" }],
    ["powder,lot,made\nA,B,2026-10-01\nA,,2026-10-01", { kind: "line-without", what: "lot", line: 3 }],
    ["powder,lot,made\nA,B,soon", { kind: "not-a-date", text: "soon", line: 2 }],
    ["powder,lot,made\nA,B,1/2/2026", { kind: "date-of-two", line: 2 }],
    ["powder,lot,made,received\nA,B,2026-10-01,never", { kind: "not-a-date", text: "never", line: 2 }],
    ["powder,lot,made,kg\nA,B,2026-10-01,much", { line: 2 }],
  ])("%j is refused with its line", (text, error) => {
    expect(read(text)).toMatchObject({ ok: false, error });
  });
  test("five hundred lines are read, one more is not", () => {
    const lines = (n: number) =>
      `powder,lot,made\n${Array.from({ length: n }, (_, i) => `A,L${i},2026-10-01`).join("\n")}`;
    expect(valueOrThrow(read(lines(500)))).toHaveLength(500);
    expect(read(lines(501))).toMatchObject({ error: { kind: "too-many-lines", got: 501, most: 500 } });
  });
});
