import { describe, expect, test } from "vitest";
import { figure, plainly, typed } from "@/ui/format";
import { readerOf, wordsIn } from "@/ui/forms/entry";
import { Refused } from "@/ui/forms/refused";

const values = { film: "2,5", none: " ", bad: "2.5 x", list: "1 2;3.5\n4", range: "60–80" };
const refusalOf = (act: () => unknown): Refused => {
  try {
    act();
  } catch (error) {
    if (error instanceof Refused) return error;
    throw error;
  }
  throw new Error("nothing was refused");
};

describe("what is typed in a form", () => {
  test("is read in the person's unit and given in the canonical one", () => {
    expect(readerOf(values, "metric").number("film", "thickness")).toBe(2.5);
    expect(readerOf(values, "us").number("film", "thickness")).toBeCloseTo(63.5, 9);
    expect(readerOf(values, "us").number("film", "volume")).toBeCloseTo(2.5 * 3.785411784, 9);
    expect(readerOf(values, "us").number("film", "airSpeed")).toBeCloseTo((2.5 * 0.3048) / 60, 12);
    expect(readerOf(values, "us").number("film")).toBe(2.5);
  });
  test("nothing typed is nothing where it may be, and asked for where it must be there", () => {
    const read = readerOf(values, "metric");
    expect(read.maybe("none")).toBe(null);
    const refusal = refusalOf(() => read.number("none"));
    expect([refusal.field, refusal.message]).toEqual(["none", "Type a number here."]);
  });
  test("what is no number is said with the value, at its field", () => {
    const refusal = refusalOf(() => readerOf(values, "metric").maybe("bad"));
    expect(refusal.field).toBe("bad");
    expect(refusal.message).toContain("“2.5 x”");
  });
  test("several numbers stand between blanks, lines or semicolons; one that is none is said by itself", () => {
    expect(
      readerOf(values, "us")
        .many("list", "creep")
        .map((mm) => Number(mm.toFixed(9))),
    ).toEqual([25.4, 50.8, 88.9, 101.6]);
    expect(readerOf(values, "metric").many("none")).toEqual([]);
    expect(refusalOf(() => readerOf({ list: "1 two 3" }, "metric").many("list")).message).toContain("“two”");
    expect(wordsIn(" 1;; 2 ")).toEqual(["1", "2"]);
  });
  test("a way of reading of its own refuses at its field, and a mistake in it stays a mistake", () => {
    const read = readerOf(values, "metric");
    expect(read.as("range", (text) => text.split("–").map(Number))).toEqual([60, 80]);
    const refusal = refusalOf(() =>
      read.as("range", () => {
        throw new Refused(null, "no range");
      }),
    );
    expect([refusal.field, refusal.message]).toEqual(["range", "no range"]);
    expect(() =>
      read.as("range", () => {
        throw new TypeError("of the program");
      }),
    ).toThrow(TypeError);
  });
});

describe("figures as they are shown", () => {
  test("large ones are grouped and carry no decimals nobody measured", () => {
    expect(figure(4200, "volume", "metric")).toEqual({ text: "4,200", unit: "L" });
    expect(figure(4200, "volume", "us")).toEqual({ text: "1,110", unit: "gal" });
    expect(figure(12.04, "volume", "metric").text).toBe("12.0");
  });
  test("as a person says them, and as a field begins with them", () => {
    expect(plainly(12, "volume", "metric")).toBe("12 L");
    expect(plainly(3, "temperatureDifference", "us")).toBe("5.4 °F");
    expect(typed(null, "area", "us")).toBe("");
    expect(typed(1.5, "length", "us")).toBe("4.9");
  });
});
