import { describe, expect, test } from "vitest";
import {
  acceptanceBounds,
  backupDue,
  daysWithoutBackup,
  equipmentFacts,
  equipmentRoles,
  isPlace,
  schoolChoices,
  schoolNames,
  schoolsOf,
  schoolTexts,
  siteLimitNames,
  siteLimits,
  siteRateNames,
  siteRates,
  strictestOutOfSight,
  usualAcceptance,
  usualBlastProfile,
  verificationStanding,
  wantsStripping,
  wrongFact,
} from "@/core/site";

describe("figures a shop begins with", () => {
  test("each has its source and lies within what may be set, so that it can be kept as it stands", () => {
    const all = [...siteLimitNames.map((n) => siteLimits[n]), ...siteRateNames.map((n) => siteRates[n])];
    for (const { label, usual, least, most, source } of all) {
      expect(source.length, label).toBeGreaterThan(9);
      expect(usual >= least && usual <= most && least < most, label).toBe(true);
    }
  });
  test("are those of the trade and of its standards", () => {
    const usual = Object.fromEntries(siteLimitNames.map((n) => [n, siteLimits[n].usual]));
    expect(usual).toMatchObject({
      crossCutWorstIso: 1,
      bareLimitHours: 4,
      unsealedLimitHours: 24,
      // ISO 8502-4: three degrees over the dew point.
      dewPointMarginC: 3,
      // ISO 8573-1 class 3 of moisture.
      compressedAirDewPointC: -20,
      dustTapeWorstGrade: 2,
      solubleSaltMgPerM2: 20,
      waterBreakHoldsS: 30,
      wetLimitS: 180,
      flashOffMinutes: 10,
      dryOffMinutes: 10,
      dryOffHollowMinutes: 18,
      boothMetalC: 45,
    });
    // Grades of ISO 2409 and ISO 8502-3 go from 0 to 5.
    for (const grade of [siteLimits.crossCutWorstIso, siteLimits.dustTapeWorstGrade])
      expect([grade.least, grade.most]).toEqual([0, 5]);
    // A share is a share.
    expect(siteRates.transferEfficiency.most).toBe(1);
    expect(siteRates.powderLoss).toMatchObject({ least: 0, most: 0.9 });
    expect(usualBlastProfile.um[0]).toBeLessThan(usualBlastProfile.um[1]);
  });
});

describe("classes of zones", () => {
  test("the usual ones grow laxer out of sight, and lie within their bounds", () => {
    expect(strictestOutOfSight(usualAcceptance)).toBeNull();
    for (const zone of Object.values(usualAcceptance))
      for (const [name, [least, most]] of Object.entries(acceptanceBounds)) {
        const value = zone[name as keyof typeof zone];
        expect(value >= least && value <= most, name).toBe(true);
      }
    const { A, B, C } = usualAcceptance;
    expect(A.mostFaults).toBe(0);
    expect(A.lightLux > B.lightLux && B.lightLux > C.lightLux).toBe(true);
    expect(A.distanceM < B.distanceM && B.distanceM < C.distanceM).toBe(true);
  });
  const { A, B, C } = usualAcceptance;
  test.each([
    ["fewer faults in B than in A", { A: { ...A, mostFaults: 3 }, B, C }, "B"],
    ["smaller ones in B than in A", { A: { ...A, largestMm: 1.1 }, B, C }, "B"],
    ["fewer faults in C than in B", { A, B, C: { ...C, mostFaults: 1 } }, "C"],
    ["smaller ones in C than in B", { A, B, C: { ...C, largestMm: 0.9 } }, "C"],
    ["the same in all is none of them", { A: B, B, C: B }, null],
  ] as const)("%s", (_, classes, zone) => expect(strictestOutOfSight(classes)).toBe(zone));
});

describe("facts of equipment", () => {
  test("each number passes at its bounds and is refused beyond them, with its unit", () => {
    let numbers = 0;
    for (const role of equipmentRoles)
      for (const { name, label, unit, bounds } of equipmentFacts[role]) {
        if (bounds === null) {
          expect(wrongFact(role, { [name]: "as it is" })).toBeNull();
          expect(wrongFact(role, { [name]: 3 })).toMatchObject({ name, label, why: "is not words" });
          continue;
        }
        numbers++;
        const [least, most] = bounds;
        for (const fits of [least, most]) expect(wrongFact(role, { [name]: fits }), `${role} ${name}`).toBeNull();
        expect(wrongFact(role, { [name]: least - 0.1 })?.why).toBe(`is under ${least} ${unit}`.trim());
        expect(wrongFact(role, { [name]: most + 0.1 })?.why).toBe(`is over ${most} ${unit}`.trim());
        for (const no of ["high", Number.NaN, Number.POSITIVE_INFINITY])
          expect(wrongFact(role, { [name]: no })?.why).toBe("is not a number");
      }
    expect(numbers).toBeGreaterThan(12);
  });
  test("what is not noted of its kind is refused by name; the first that is wrong is told", () => {
    expect(wrongFact("blast-room", { mostKv: 80 })).toEqual({
      name: "mostKv",
      label: "mostKv",
      value: "80",
      why: "is not noted of a blast room",
    });
    expect(wrongFact("gun", { mostKv: 80, mostUa: 900 })?.name).toBe("mostUa");
    expect(wrongFact("gun", {})).toBeNull();
  });
  test("places are what a part must fit", () => {
    expect(equipmentRoles.filter((role) => !isPlace(role))).toEqual(["gun", "compressor", "drier", "line"]);
  });
  test.each([
    [20, 19, false],
    [20, 20, true],
    [20, 21, true],
    [undefined, 21, false],
    [20, undefined, false],
  ])("stripped after %s, run %s: wants stripping %s", (after, run, wants) => {
    const noted = { ...(after && { stripAfterCycles: after }), ...(run && { cyclesSinceStripped: run }) };
    expect(wantsStripping(noted)).toBe(wants);
  });
});

test("schools as they are kept and as they are asked are the same", () => {
  for (const preparation of ["blast", "sand"] as const)
    for (const outgasAlwaysForCastings of [true, false]) {
      const kept = {
        conversion: "zirconium",
        primerCuring: "dry-on-dry",
        outgasAlwaysForCastings,
        preparation,
      } as const;
      expect(schoolsOf(schoolTexts(kept))).toEqual(kept);
      expect(schoolTexts(kept).outgas).toBe(outgasAlwaysForCastings ? "always" : "where-seen");
    }
  for (const name of schoolNames) expect(Object.keys(schoolChoices[name].options)).toContain(schoolChoices[name].usual);
});

test("a verification is due by its interval, said three weeks before, and never done is said", () => {
  const on = (verifyEveryDays: number | null, verifiedOn: string | null, today: string) =>
    verificationStanding({ verifyEveryDays, verifiedOn }, today);
  expect(on(365, "2026-01-10", "2026-05-01")).toMatchObject({ state: "in", dueOn: "2027-01-10" });
  expect(on(365, "2026-01-10", "2026-12-19")).toMatchObject({ state: "in", daysLeft: 22 });
  expect(on(365, "2026-01-10", "2026-12-20")).toMatchObject({ state: "soon", daysLeft: 21 });
  expect(on(365, "2026-01-10", "2027-01-10")).toMatchObject({ state: "soon", daysLeft: 0 });
  expect(on(365, "2026-01-10", "2027-01-11")).toMatchObject({ state: "overdue", daysLeft: -1 });
  expect(on(365, null, "2027-01-11")).toEqual({ state: "never", dueOn: null, daysLeft: null });
  expect(on(null, "2026-01-10", "2027-01-11").state).toBe("not-asked");
});

test("a backup is due by its interval since the last, and a week without one is said", () => {
  const now = new Date("2026-11-29T12:00:00Z");
  const ago = (hours: number) => new Date(now.getTime() - hours * 3_600_000);
  expect(backupDue(24, ago(23.9), now)).toBe(false);
  expect(backupDue(24, ago(24), now)).toBe(true);
  expect(backupDue(24, null, now)).toBe(true);
  expect(backupDue(null, null, now)).toBe(false);
  expect(daysWithoutBackup(ago(24 * 7 - 0.1), ago(24 * 90), now)).toBeNull();
  expect(daysWithoutBackup(ago(24 * 7), ago(24 * 90), now)).toBe(7);
  expect(daysWithoutBackup(ago(24 * 8.9), ago(24 * 90), now)).toBe(8);
  expect(daysWithoutBackup(null, ago(24 * 3), now)).toBeNull();
  expect(daysWithoutBackup(null, ago(24 * 7), now)).toBe(7);
});
