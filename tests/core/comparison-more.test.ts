import { describe, expect, test } from "vitest";
import {
  adjusted,
  type Columns,
  columnOf,
  columnsOf,
  contrastColumns,
  effectCheck,
  mannWhitney,
  movedTogether,
  oneSidedP,
  planTrial,
  strataOf,
} from "@/core/comparison";
import { valueOrThrow } from "@/core/result";
import { seededRandom } from "@/core/statistics/random";

/** The admissions to Berkeley of 1973 (Bickel, Hammel and O’Connell, Science 187): admitted and not, men and women, by department. */
const departments: [string, number, number, number, number][] = [
  ["A", 512, 313, 89, 19],
  ["B", 353, 207, 17, 8],
  ["C", 120, 205, 202, 391],
  ["D", 138, 279, 131, 244],
  ["E", 53, 138, 94, 299],
  ["F", 22, 351, 24, 317],
];
const berkeley: Columns = (() => {
  const rows = departments.flatMap(([department, ma, mr, fa, fr]) => [
    ...Array.from({ length: ma }, () => [1, "male", department] as const),
    ...Array.from({ length: mr }, () => [0, "male", department] as const),
    ...Array.from({ length: fa }, () => [1, "female", department] as const),
    ...Array.from({ length: fr }, () => [0, "female", department] as const),
  ]);
  return {
    affected: Uint8Array.from(rows, (r) => r[0]),
    columns: [
      columnOf(
        "sex",
        rows.map((r) => r[1]),
      ),
      columnOf(
        "department",
        rows.map((r) => r[2]),
      ),
    ],
  };
})();

describe("one variable held still", () => {
  const [sex, department] = berkeley.columns as [Columns["columns"][0], Columns["columns"][0]];
  test("the Berkeley admissions: what looks like a difference is the department's", () => {
    const plain = valueOrThrow(contrastColumns(berkeley)).differences.find((d) => d.variable === "sex");
    expect(plain?.p).toBeLessThan(1e-9);
    const held = adjusted(berkeley, sex, "male", strataOf(department));
    // R 4: mantelhaen.test(UCBAdmissions): 0.9046968, 0.7719074 to 1.0603298, p 0.2323.
    expect(held?.effect).toBeCloseTo(0.9046968, 6);
    expect(held?.interval?.[0]).toBeCloseTo(0.7719074, 5);
    expect(held?.interval?.[1]).toBeCloseTo(1.0603298, 5);
    expect(held?.p).toBeCloseTo(0.2323, 4);
    expect(held?.strata).toBe(6);
  });
  test("within one stratum a figure comes to Cliff's δ and the plain test's p, but for its continuity", () => {
    const random = seededRandom(7).uniform;
    const things = Array.from({ length: 80 }, (_, i) => ({
      affected: i % 3 === 0,
      values: new Map<string, string | number>([
        ["ph", Math.round(random() * 40) / 10 + (i % 3 === 0 ? 0.4 : 0)],
        ["line", "one"],
        ["two", i % 2 ? "odd" : "even"],
      ]),
    }));
    const columns = columnsOf(things);
    const ph = columns.columns.find((c) => c.variable === "ph");
    const line = columns.columns.find((c) => c.variable === "line");
    if (!ph || !line) throw new Error("no column");
    const held = adjusted(columns, ph, null, strataOf(line));
    const plain = valueOrThrow(
      mannWhitney(
        things.filter((t) => t.affected).map((t) => t.values.get("ph") as number),
        things.filter((t) => !t.affected).map((t) => t.values.get("ph") as number),
      ),
    );
    expect(held?.effect).toBeCloseTo(plain.cliffsDelta, 9);
    expect(held?.p).toBeCloseTo(plain.p, 2);
  });
  test("a figure is held still by its fifths, each with a fifth of what is known", () => {
    const column = columnOf(
      "kv",
      Array.from({ length: 101 }, (_, i) => (i === 50 ? null : i)),
    );
    const { codes, labels } = strataOf(column);
    expect(labels).toHaveLength(5);
    expect(codes[50]).toBe(-1);
    for (let f = 0; f < 5; f++) expect(Math.abs([...codes].filter((c) => c === f).length - 20)).toBeLessThanOrEqual(1);
  });
  test("where no stratum holds both sides nothing is said", () => {
    const split: Columns = {
      affected: Uint8Array.from([1, 1, 0, 0]),
      columns: [columnOf("gun", ["a", "b", "a", "b"]), columnOf("day", ["mo", "mo", "tu", "tu"])],
    };
    expect(adjusted(split, split.columns[0] as never, "a", strataOf(split.columns[1] as never))).toBeNull();
  });
});

describe("what moved together", () => {
  test("is one group, what moved on its own another", () => {
    const random = seededRandom(3).uniform;
    const things = Array.from({ length: 300 }, (_, i) => {
      const bad = i % 2 === 0;
      const lot = random() < (bad ? 0.8 : 0.2) ? "new" : "old";
      return {
        affected: bad,
        values: new Map<string, string | number>([
          ["lot", lot],
          ["painter", lot === "new" && random() < 0.97 ? "M" : random() < 0.95 ? "T" : "M"],
          ["place", random() < (bad ? 0.7 : 0.3) ? "P1" : "P2"],
          ["ph", random()],
        ]),
      };
    });
    const columns = columnsOf(things);
    const out = valueOrThrow(contrastColumns(columns)).differences.filter((d) => d.q < 0.1);
    const names = movedTogether(columns, out).map((g) => g.map((i) => out[i]?.variable).sort());
    expect(names).toContainEqual(["lot", "painter"]);
    expect(names).toContainEqual(["place"]);
  });
});

describe("columns", () => {
  test("only what is kept is looked at, in every reckoning", () => {
    const random = seededRandom(23).uniform;
    const things = Array.from({ length: 400 }, (_, i) => ({
      affected: i % 4 === 0,
      values: new Map<string, string | number>([
        ["ph", Math.round(random() * 30) / 10 + (i % 4 === 0 ? 0.5 : 0)],
        ["lot", random() < 0.5 ? "a" : "b"],
        ["day", random() < 0.5 ? "mo" : "tu"],
      ]),
    }));
    const keep = Uint8Array.from(things, () => Number(random() < 0.6));
    const some = columnsOf(things.filter((_, i) => keep[i]));
    const all = { ...columnsOf(things), keep };
    const told = (c: Columns) => valueOrThrow(contrastColumns(c));
    expect(told(all)).toEqual(told(some));
    const named = (c: Columns, name: string) => c.columns.find((x) => x.variable === name) as Columns["columns"][0];
    for (const name of ["ph", "lot"])
      expect(adjusted(all, named(all, name), name === "lot" ? "a" : null, strataOf(named(all, "day")))).toEqual(
        adjusted(some, named(some, name), name === "lot" ? "a" : null, strataOf(named(some, "day"))),
      );
    expect(movedTogether(all, told(all).differences)).toEqual(movedTogether(some, told(some).differences));
  });
  test("of a figure it says what the plain test says", () => {
    const random = seededRandom(29).uniform;
    const values = Array.from({ length: 90 }, () => Math.round(random() * 20));
    const affected = values.map((_, i) => i % 3 === 0);
    const got = valueOrThrow(
      contrastColumns({ affected: Uint8Array.from(affected, Number), columns: [columnOf("v", values)] }),
    ).differences[0];
    const plain = valueOrThrow(
      mannWhitney(
        values.filter((_, i) => affected[i]),
        values.filter((_, i) => !affected[i]),
      ),
    );
    expect(got?.test).toEqual(plain);
  });
});

describe("a trial that proves a cause", () => {
  test("the lady tasting tea: three of four against one of four is 17/70", () => {
    expect(oneSidedP(3, 4, 1, 4)).toBeCloseTo(17 / 70, 12);
  });
  test("all against none wants three and three panels for 95 %, five and five for 99.5 %", () => {
    expect(valueOrThrow(planTrial(1, 0, 0.95))).toMatchObject({ panels: 3, expectedWith: 3, expectedWithout: 0 });
    expect(valueOrThrow(planTrial(1, 0, 0.995)).panels).toBe(5);
  });
  test("simulated, as many trials prove it as was said", () => {
    const plan = valueOrThrow(planTrial(0.7, 0.15, 0.95));
    const random = seededRandom(11).uniform;
    const count = (share: number) => Array.from({ length: plan.panels }, () => random() < share).filter(Boolean).length;
    let proved = 0;
    for (let i = 0; i < 2000; i++) if (oneSidedP(count(0.7), plan.panels, count(0.15), plan.panels) <= 0.05) proved++;
    expect(proved / 2000).toBeCloseTo(plan.power, 1);
    expect(plan.power).toBeGreaterThanOrEqual(0.8);
  });
  test("nothing to tell is refused", () => {
    expect(planTrial(0.2, 0.2, 0.95)).toMatchObject({ ok: false, error: { kind: "bad-input" } });
    expect(planTrial(0.21, 0.2, 0.95)).toMatchObject({ ok: false, error: { kind: "no-plan" } });
    expect(planTrial(1, 0, 1)).toMatchObject({ ok: false, error: { kind: "bad-input", name: "certainty" } });
  });
});

describe("whether an action worked, looked at early", () => {
  test("looked at after every rack, without an effect it is called a success in at most 1 of 20", () => {
    const random = seededRandom(19).uniform;
    let wrong = 0;
    const runs = 150;
    for (let run = 0; run < runs; run++) {
      // The truth before and after is the same; what was seen before varies as well.
      let seen = 0;
      for (let i = 0; i < 60; i++) if (random() < 0.3) seen++;
      let withIt = 0;
      for (let racks = 1; racks <= 50; racks++) {
        if (random() < 0.3) withIt++;
        const got = valueOrThrow(effectCheck({ racks: 60, withIt: seen }, { racks, withIt }));
        if (got.said === "worked") {
          wrong++;
          break;
        }
      }
    }
    expect(wrong / runs).toBeLessThan(0.05);
  });
  test("gone for good it is told after as many racks as was said", () => {
    const begun = valueOrThrow(effectCheck({ racks: 40, withIt: 14 }, { racks: 0, withIt: 0 }));
    expect(begun).toMatchObject({ said: "too-soon", afterInterval: null });
    const wanted = begun.racksWanted;
    expect(wanted).toBeGreaterThan(5);
    expect(valueOrThrow(effectCheck({ racks: 40, withIt: 14 }, { racks: wanted, withIt: 0 })).said).toBe("worked");
    expect(valueOrThrow(effectCheck({ racks: 40, withIt: 14 }, { racks: wanted - 1, withIt: 0 })).said).toBe(
      "too-soon",
    );
  });
  test("as bad as before it is told that it did not work", () => {
    expect(valueOrThrow(effectCheck({ racks: 40, withIt: 20 }, { racks: 40, withIt: 22 })).said).toBe("did-not-work");
  });
  test("a defect that was never seen cannot fall, and more than all is refused", () => {
    expect(effectCheck({ racks: 40, withIt: 0 }, { racks: 3, withIt: 0 })).toMatchObject({
      error: { kind: "never-seen" },
    });
    expect(effectCheck({ racks: 4, withIt: 5 }, { racks: 3, withIt: 0 })).toMatchObject({
      error: { kind: "bad-input" },
    });
  });
});
