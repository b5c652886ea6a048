import { describe, expect, test } from "vitest";
import { structureFindings } from "@/server/causes/findings/structure";

type Fact = NonNullable<Parameters<typeof structureFindings>[1]>;
const fact = (over: Partial<Fact>): Fact => ({
  recordId: "0b0e0000-0000-7000-8000-000000000001",
  told_year: null,
  told_year_grade: null,
  told_coater: null,
  told_coater_grade: null,
  told_system: null,
  told_system_grade: null,
  told_protection: null,
  road_m: null,
  salt_m: null,
  water_m: null,
  latitude: null,
  longitude: null,
  promised_years: null,
  note: null,
  ...over,
});
const said = (exposure: readonly string[], over: Partial<Fact> | null) =>
  Object.fromEntries(structureFindings(exposure, over && fact(over)).map((f) => [f.finding, `${f.state}, ${f.grade}`]));

describe("what is told of a structure", () => {
  test("salt: by its exposure, within 50 m of salt water, and assumed within 10 m of a road; nothing where nothing is said", () => {
    const salt = (exposure: readonly string[], over: Partial<Fact> | null) => said(exposure, over)["salt-exposure"];
    expect(salt(["salt"], null)).toBe("present, by-procedure");
    expect(salt(["sun"], { salt_m: 50 })).toBe("present, by-procedure");
    expect(salt(["sun"], { salt_m: 51 })).toBe("absent, by-procedure");
    expect(salt(["sun"], { road_m: 10 })).toBe("present, assumed");
    expect(salt(["sun"], { road_m: 11 })).toBe("absent, by-procedure");
    expect(salt([], null)).toBeUndefined();
  });
  test("a road's salt is not told as seen", () => {
    const [salt] = structureFindings(["sun"], fact({ road_m: 3 }));
    expect(salt?.what).toEqual({ kind: "seen", what: "3 m from a road; whether it is salted is not on record" });
  });
  test("primer and blast by what it was told to carry, worth what the telling is worth", () => {
    expect(said([], { told_protection: "primed", told_system_grade: "by-procedure" })).toEqual({
      "no-primer": "absent, by-procedure",
    });
    expect(said([], { told_protection: "blasted" })).toEqual({
      "no-primer": "present, assumed",
      "no-blast": "absent, assumed",
    });
    for (const told_protection of ["bare", "light"])
      expect(said([], { told_protection })).toEqual({
        "no-primer": "present, assumed",
        "no-blast": "present, assumed",
      });
    expect(said([], {})).toEqual({});
  });
});
