import { describe, expect, it } from "vitest";
import { contrast, type Observed } from "@/core/comparison";
import { valueOrThrow } from "@/core/result";

const rack = (affected: boolean, values: Record<string, string | number>): Observed => ({
  affected,
  values: new Map(Object.entries(values)),
});

describe("what differs between affected racks and others", () => {
  const racks = [
    ...[5.9, 5.8, 5.7, 5.6, 5.5].map((ph, i) => rack(true, { lot: "L2", ph, booth: "B1", gun: i % 2 ? "G1" : "G2" })),
    ...[5.1, 5.0, 5.2, 5.3, 4.9, 5.15, 5.05].map((ph, i) =>
      rack(false, { lot: i === 0 ? "L2" : "L1", ph, booth: "B1", gun: i % 2 ? "G1" : "G2" }),
    ),
  ];
  const found = valueOrThrow(contrast(racks));
  const of = (variable: string) => found.differences.find((d) => d.variable === variable);

  it("counts both sides, and tries each of two categories once and a constant not at all", () => {
    expect([found.affected, found.others, found.tried]).toEqual([5, 7, 3]);
    expect(of("booth")).toBeUndefined();
  });
  it("figures by Mann–Whitney: 5 against 7 fully apart is 2 in 792", () => {
    const ph = of("ph");
    expect(ph).toMatchObject({
      kind: "figure",
      affected: { n: 5, median: 5.7 },
      others: { n: 7, median: 5.1 },
      test: { u: 35, cliffsDelta: 1, exact: true },
    });
    expect(ph?.p).toBeCloseTo(2 / 792, 12);
  });
  it("categories by Fisher, the first in order told of a pair", () => {
    const lot = of("lot");
    // Tables with margins 5, 7 and 6, 6: (0, 6) is the observed one, (5, 1) as likely: 7 / 924 each.
    expect(lot).toMatchObject({
      kind: "category",
      value: "L1",
      affected: { n: 5, with: 0 },
      others: { n: 7, with: 6 },
    });
    expect(lot?.p).toBeCloseTo(14 / 924, 10);
  });
  it("least p first, each with its share of false finds over all that was tried", () => {
    expect(found.differences.map((d) => d.variable)).toEqual(["ph", "lot", "gun"]);
    expect(of("ph")?.q).toBeCloseTo((3 * 2) / 792, 12);
    expect(of("lot")?.q).toBeCloseTo((3 / 2) * (14 / 924), 10);
    expect(of("gun")?.q).toBeCloseTo(1, 12);
  });
  it("each of three categories is held against the rest", () => {
    const three = valueOrThrow(
      contrast([
        rack(true, { place: "a" }),
        rack(true, { place: "a" }),
        rack(false, { place: "b" }),
        rack(false, { place: "c" }),
      ]),
    );
    expect(three.tried).toBe(3);
    expect(three.differences[0]).toMatchObject({ value: "a", affected: { n: 2, with: 2 }, others: { n: 2, with: 0 } });
    expect(three.differences[0]?.p).toBeCloseTo(1 / 3, 12);
  });
  it("of one p the greater effect stands first", () => {
    const tie = valueOrThrow(
      contrast([
        rack(true, { a: "x", b: 1 }),
        rack(true, { a: "y", b: 2 }),
        rack(false, { a: "x", b: 1 }),
        rack(false, { a: "x", b: 2 }),
      ]),
    );
    expect(tie.differences.map((d) => [d.variable, d.p])).toEqual([
      ["a", 1],
      ["b", 1],
    ]);
  });
  it("what only one side knows, or nobody, is not tried; what is missing does not count", () => {
    const some = valueOrThrow(
      contrast([rack(true, { kv: 60 }), rack(true, {}), rack(false, { metal: 30 }), rack(false, {})]),
    );
    expect(some).toMatchObject({ tried: 0, differences: [], affected: 2, others: 2 });
    expect(contrast([])).toMatchObject({ ok: true, value: { tried: 0, affected: 0 } });
  });
  it("a figure beside a word is compared as words; no number is refused", () => {
    const mixed = valueOrThrow(
      contrast([rack(true, { gun: 1 }), rack(false, { gun: "two" }), rack(false, { gun: 1 })]),
    );
    expect(mixed.differences[0]).toMatchObject({ kind: "category", value: "1", affected: { n: 1, with: 1 } });
    expect(contrast([rack(true, { kv: Number.NaN }), rack(false, { kv: 1 })])).toMatchObject({
      ok: false,
      error: { kind: "not-finite" },
    });
  });
});
