import { describe, expect, test } from "vitest";
import { columnsOf, contrast, type Observed } from "@/core/comparison";
import { valueOrThrow } from "@/core/result";
import type { Told } from "@/server/causes/explore";
import type { WhatDiffers } from "@/server/causes/what-differs";
import { WhatDiffersTable } from "@/ui/causes/what-differs";
import { adjustedSaid, chance, comparedFigure, comparedName } from "@/ui/words/differs";
import { words } from "../support/markup";

const racks = (n: number, affected: boolean, values: Record<string, string | number>) =>
  Array.from({ length: n }, (_, i) => ({
    affected,
    values: new Map(Object.entries(values).map(([k, v]) => [k, typeof v === "number" ? v + i / 1000 : v])),
  }));
const spreadOf = (things: readonly Observed[], variable: string): Told["spread"] => {
  const column = columnsOf(things).columns.find((c) => c.variable === variable);
  return column?.kind === "category"
    ? { kind: "category", shares: column.labels.map((value) => ({ value, affected: 0.5, others: 0.1 })) }
    : { kind: "figure", affected: [1, 2, 3, 4, 5], others: [2, 3, 4, 5, 6], range: [1, 5] };
};
/** As the explorer groups them: each on its own, or all together. */
const grouped = (things: readonly Observed[], together = false): Pick<WhatDiffers, "groups" | "rest"> => {
  const { differences } = valueOrThrow(contrast(things));
  const told = differences
    .filter((d) => d.q <= 0.1)
    .map((difference) => ({ difference, adjusted: null, spread: spreadOf(things, difference.variable) }));
  return { groups: together ? [told] : told.map((t) => [t]), rest: differences.filter((d) => d.q > 0.1) };
};
const found = (things: ReturnType<typeof racks>, over: Partial<WhatDiffers> = {}): WhatDiffers => ({
  from: new Date("2026-11-01T08:00:00Z"),
  to: new Date("2026-11-26T08:00:00Z"),
  compared: things.length,
  ...grouped(things),
  days: [],
  ofPart: false,
  left: false,
  variables: [],
  values: [],
  contrast: valueOrThrow(contrast(things)),
  onset: null,
  ...over,
});
const said = (of: WhatDiffers | null) => words(<WhatDiffersTable found={of} timeZone="Europe/London" units="metric" />);

describe("what differs, in words", () => {
  test("what is compared is named, each figure in its unit", () => {
    expect(comparedName("bath:Conversion:ph")).toBe("Conversion, pH");
    expect(comparedName("seconds:rinse-2")).toBe("Time in rinse 2");
    expect(comparedName("lot")).toBe("Powder lot");
    expect(comparedFigure("bath:Conversion:ph", 5.213, "metric")).toBe("5.21");
    expect(comparedFigure("film", 50.8, "us")).toBe("2.00 mil");
    expect(comparedFigure("wait", 90, "metric")).toBe("1 h 30");
    expect(comparedFigure("earth", 0.346, "metric")).toBe("0.35 MΩ");
    expect(comparedFigure("distance", 249.6, "metric")).toBe("250 mm");
    expect([chance(0.0004), chance(0.0123)]).toEqual(["< 0.001", "0.012"]);
  });
  test("what stands out comes first with both sides counted; the rest is folded away", () => {
    const text = said(
      found([
        ...racks(6, true, { lot: "L2", film: 90, gun: "G1" }),
        ...racks(12, false, { lot: "L1", film: 70, gun: "G1" }),
      ]),
    );
    expect(text).toContain("6 racks show it, 12 do not");
    expect(text).toContain("2 comparisons made");
    expect(text).toContain("Powder lot: L1");
    expect(text).toContain("0 of 6");
    expect(text).toContain("12 of 12");
    expect(text).toContain("90.0 µm (6)");
    expect(text).toContain("No day stands out");
    expect(text).not.toContain("other comparison");
  });
  test("an effect is told with its interval; what moved together is told to be inseparable", () => {
    const things = [...racks(6, true, { lot: "L2", film: 90 }), ...racks(12, false, { lot: "L1", film: 70 })];
    expect(said(found(things))).toMatch(/higher in 100 of 100 pairs \(\d+–100\)/);
    expect(said(found(things))).toMatch(/odds (under )?0\.\d+ times \(/);
    expect(said(found(things))).not.toContain("moved together");
    expect(said(found(things, grouped(things, true)))).toContain("the record cannot separate powder lot and film.");
  });
  test("with another held still what is left is told, and where nothing sure is", () => {
    expect(adjustedSaid({ variable: "lot", value: "L2", strata: 4, effect: 5.25, interval: [2, 14], p: 0.01 })).toBe(
      "odds 5.3 times (2.0–14)",
    );
    expect(
      adjustedSaid({ variable: "film", value: null, strata: 4, effect: -0.1, interval: [-0.4, 0.2], p: 0.4 }),
    ).toBe("lower in 55 of 100 pairs (40–70), so nothing sure is left");
  });
  test("nothing that stands out is said to be nothing; while older racks are being read it says so", () => {
    const text = said(
      found([...racks(2, true, { lot: "L1" }), ...racks(1, false, { lot: "L1" }), ...racks(1, false, { lot: "L2" })], {
        left: true,
      }),
    );
    expect(text).toContain("Nothing stands out");
    expect(text).toContain("Older racks are still being read");
    expect(text).toContain("1 other comparison");
  });
  test("an onset names its day, both rates and what was changed, or that nothing was", () => {
    const change = {
      kind: "change-point" as const,
      firstAffectedPeriod: 3,
      logLikelihoodGain: 9,
      rateBefore: 0.02,
      rateAfter: 0.4,
      gainByChance: 3,
      onset: true,
    };
    const onset = { day: "2026-11-18", from: new Date("2026-11-18T07:00:00Z"), change, near: [] };
    const text = said(found([...racks(2, true, { kv: 60 }), ...racks(2, false, { kv: 70 })], { onset }));
    expect(text).toContain("Began about 18 Nov : 2 in 100 racks before, 40 in 100 from then on");
    expect(text).toContain("No change is on record about then");
  });
  test("with nothing to hold against each other it says why", () => {
    expect(said(null)).toContain("none of that time shows this defect on record, or all do");
  });
});
