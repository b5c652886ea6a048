import { describe, expect, it } from "vitest";
import { valueOrThrow } from "@/core/result";
import { type FilmRequirement, filmAsked, judgeFilm, placeLimits, type Spot } from "@/core/thickness";

const spot = (id: string, ...valuesUm: number[]): Spot => ({ id, readings: valuesUm.map((valueUm) => ({ valueUm })) });
const five = (um: number): Spot[] => ["A", "B", "C", "D", "E"].map((id) => spot(id, um, um, um));
const spotArea: FilmRequirement = { rule: "spot-area", minUm: 60, maxUm: 90, level: 3 };
const nominal: FilmRequirement = { rule: "nominal", nominalUm: 80, maxUm: null };
const areas: FilmRequirement = { rule: "measuring-areas", minUm: 60, maxUm: null };
const judge = (spots: readonly Spot[], film: FilmRequirement, asked = 0) => valueOrThrow(judgeFilm(spots, film, asked));
const kinds = (spots: readonly Spot[], film: FilmRequirement, asked = 0) =>
  judge(spots, film, asked).reasons.map((r) => r.kind);

describe("a film is in only of what was read", () => {
  it.each([
    ["spot-area", spotArea, 70],
    ["nominal", nominal, 85],
    ["measuring-areas", areas, 62],
  ] as const)(
    "%s: five full spots are in, four are unknown with the counts, a spot without a reading too",
    (_, film, um) => {
      expect(judge(five(um), film)).toMatchObject({ result: "in", meanUm: um, reasons: [] });
      const four = judge(
        five(um)
          .slice(0, 4)
          .map((s) => spot(s.id, um)),
        film,
      );
      expect(four.result).toBe("unknown");
      expect(four.reasons).toContainEqual(expect.objectContaining({ kind: "too-few-read", read: 4, asked: 5 }));
      const open = judge([...five(um), spot("F")], film);
      expect(open).toMatchObject({ result: "unknown", reasons: [{ kind: "spot-unread", spot: "F" }] });
    },
  );
  it("a spot with every reading rejected is not read", () => {
    const rejected: Spot = { id: "E", readings: [{ valueUm: 70, rejectedReason: "on a run" }] };
    const verdict = judge([...five(70).slice(0, 4), rejected], spotArea);
    expect(verdict).toMatchObject({ result: "unknown", read: 4, asked: 5 });
    expect(verdict.reasons).toEqual([{ kind: "spot-unread", area: "piece", spot: "E" }]);
  });
  it("what is out is out however little was read, and stands before what is open", () => {
    expect(judge([spot("A", 40, 40, 40), spot("B")], spotArea).result).toBe("out");
    expect(kinds([spot("A", 40, 40, 40), spot("B")], spotArea)).toEqual([
      "area-mean-low",
      "spot-too-thin",
      "spot-unread",
    ]);
    expect(judge([spot("A", 40, 41, 42)], areas).result).toBe("out");
    expect(kinds([spot("A", 90), spot("B", 30)], nominal)).toEqual([
      "mean-below-nominal",
      "reading-below-80-percent",
      "too-few-read",
    ]);
  });
  it("the nominal rule judges single readings: a spot's mean hides one under 80 %", () => {
    const spots = [...five(85).slice(0, 4), spot("E", 60, 95, 100)];
    const verdict = judge(spots, nominal);
    expect(verdict).toMatchObject({ result: "out", read: 15 });
    expect(verdict.reasons).toEqual([{ kind: "reading-below-80-percent", spot: "E", valueUm: 60, limitUm: 64 }]);
    expect(judge([...five(85).slice(0, 4), spot("E", 250, 85, 85)], nominal).reasons).toEqual([
      { kind: "reading-above-max", spot: "E", valueUm: 250, limitUm: 240 },
    ]);
  });
  it("nominal: two of eleven between 80 and 100 % is watched, a fifth is out", () => {
    const of = (low: number, n: number) => Array.from({ length: n }, (_, i) => spot(`S${i}`, i < low ? 75 : 90));
    expect(judge(of(2, 11), nominal)).toMatchObject({
      result: "watch",
      reasons: [{ kind: "some-between-80-and-100-percent", count: 2, of: 11 }],
    });
    expect(judge(of(2, 10), nominal)).toMatchObject({ result: "out" });
  });
  it("a plan that asks for more readings than were taken leaves it unknown", () => {
    expect(judge(five(85), nominal, 20)).toMatchObject({
      result: "unknown",
      reasons: [{ kind: "too-few-read", what: "readings", read: 15, asked: 20 }],
    });
    expect(judge(five(85), nominal, 15).result).toBe("in");
  });
  it("measuring areas: mean at the minimum is in, one just at 80 % watched, under it out; one reading leaves an area unknown", () => {
    expect(judge(five(60), areas).result).toBe("in");
    const at80 = [spot("A", 48, 48, 48), ...five(66).slice(1)];
    expect(judge(at80, areas)).toMatchObject({
      result: "watch",
      reasons: [{ kind: "area-thin", spot: "A", limitUm: 60 }],
    });
    const under = [spot("A", 47.9, 47.9, 47.9), ...five(66).slice(1)];
    expect(judge(under, areas)).toMatchObject({
      result: "out",
      reasons: [{ kind: "area-below-80-percent", spot: "A", limitUm: 48 }],
    });
    expect(judge(five(59.9), areas)).toMatchObject({
      result: "out",
      reasons: [{ kind: "areas-mean-low" }, ...Array(5).fill({ kind: "area-thin" })],
    });
    const single = judge([spot("A", 66), ...five(66).slice(1)], areas);
    expect(single).toMatchObject({ result: "unknown", reasons: [{ kind: "few-readings", got: 1, need: 3 }] });
    expect(judge([spot("A", 66, 66), ...five(66).slice(1)], areas).result).toBe("watch");
  });
  it("measuring areas against a most, where one is set", () => {
    expect(judge(five(91), { ...areas, maxUm: 90 } as FilmRequirement)).toMatchObject({
      result: "out",
      reasons: [{ kind: "areas-mean-high", limitUm: 90 }],
    });
    expect(judge(five(90), { ...areas, maxUm: 90 } as FilmRequirement).result).toBe("in");
  });
  it("refuses what is no requirement and no reading", () => {
    const failure = (spots: readonly Spot[], film: FilmRequirement) => {
      const judged = judgeFilm(spots, film);
      return judged.ok ? null : judged.error.kind;
    };
    expect(failure([spot("A")], spotArea)).toBe("no-readings");
    expect(failure(five(70), { ...areas, minUm: 0 } as FilmRequirement)).toBe("bad-requirement");
    expect(failure(five(70), { ...areas, maxUm: 60 } as FilmRequirement)).toBe("bad-requirement");
    expect(failure(five(70), { ...nominal, nominalUm: Number.NaN } as FilmRequirement)).toBe("bad-requirement");
    expect(failure([spot("A", -1)], spotArea)).toBe("negative");
  });
  it("tells what is asked of the mean and of one place by each rule", () => {
    expect(filmAsked(nominal)).toEqual({ minUm: 80, maxUm: null });
    expect(filmAsked(spotArea)).toEqual({ minUm: 60, maxUm: 90 });
    expect(placeLimits(nominal)).toEqual({ lowestUm: 64, highestUm: 240 });
    expect(placeLimits(areas)).toEqual({ lowestUm: 48, highestUm: null });
    expect(placeLimits(spotArea)).toEqual({ lowestUm: 48, highestUm: 108 });
  });
});
