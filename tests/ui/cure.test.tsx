import { describe, expect, test } from "vitest";
import { type BakeChannel, heatThrough, ovenSurvey, type TraceFault } from "@/core/cure";
import { valueOrThrow } from "@/core/result";
import { ForetoldChart } from "@/ui/charts/foretold-chart";
import { HeatChart } from "@/ui/charts/heat-chart";
import { ProofChart } from "@/ui/charts/proof-chart";
import { ScheduleCurve } from "@/ui/charts/schedule-curve";
import { StopChart } from "@/ui/charts/stop-chart";
import { LoadNeeds } from "@/ui/cure/load-needs";
import { type LiveRack, standingOf } from "@/ui/cure/load-standing";
import { OvenDrawing } from "@/ui/cure/oven-drawing";
import { planOf } from "@/ui/cure/planner";
import { filmStateWords, traceFaultWords } from "@/ui/words/cure";
import { html, words } from "../support/markup";

const schedule = {
  points: [
    { metalC: 180, minutes: 20 },
    { metalC: 200, minutes: 10 },
  ],
  overbake: [{ metalC: 200, minutes: 40 }],
};
const rack: LiveRack = {
  gel: false,
  placeOffC: 0,
  rack: "100",
  part: "Post",
  place: "A1",
  channel: null,
  sectionMm: 5,
  tauS: 300,
  tauBandS: [270, 340],
  learntFrom: 12,
  lumpedHolds: true,
  schedule,
};
const program = { startC: 60, tauS: 140, program: [{ fromS: 0, airC: 205 }] };
const probed = (untilS: number, tauS = 300): { metal: BakeChannel; air: BakeChannel } => {
  const { air, metal } = valueOrThrow(heatThrough(program, { tauS, startC: 21 }, untilS, 10));
  return {
    air: { name: "Air", medium: "air", trace: air },
    metal: { name: "100", medium: "metal", trace: metal },
  };
};

describe("a rack in the oven now", () => {
  test("without a probe it is foretold from the door, with its band", () => {
    const now = standingOf(rack, 0, 900, program, [], null, null);
    expect(now.how).toBe("assumed");
    expect(now.nowC).toBeCloseTo(probed(900).metal.trace.tempC.at(-1) as number, 6);
    expect(now.bandC?.[0]).toBeLessThan(now.nowC);
    expect(now.bandC?.[1]).toBeGreaterThan(now.nowC);
    expect(now.before.timeS.at(-1)).toBe(900);
  });
  test("with a probe it is what the probe says, and its own time constant", () => {
    const { air, metal } = probed(900, 400);
    const now = standingOf(rack, 0, 900, program, [air, metal], air, null);
    expect(now).toMatchObject({ how: "measured", bandC: null });
    expect(now.nowC).toBe(metal.trace.tempC.at(-1));
    expect(now.tauS).toBeCloseTo(400, 0);
    expect(now.before.timeS).toEqual([]);
  });
  test("a last sample that is old is carried on by the model, and assumed", () => {
    const { air, metal } = probed(900);
    const now = standingOf(rack, 0, 1500, program, [air, metal], air, null);
    expect(now.how).toBe("assumed");
    expect(now.nowC).toBeCloseTo(probed(1500).metal.trace.tempC.at(-1) as number, 0);
    const whole = standingOf(rack, 0, 1500, program, [probed(1500).metal, probed(1500).air], probed(1500).air, null);
    expect(now.index).toBeCloseTo(whole.index, 0);
  });
  test("at a place the survey found cold it is foretold colder, until a probe says what it is", () => {
    const usual = standingOf(rack, 0, 1500, program, [], null, null);
    const cold = standingOf({ ...rack, placeOffC: -12 }, 0, 1500, program, [], null, null);
    expect(usual.nowC - cold.nowC).toBeGreaterThan(8);
    expect(cold.index).toBeLessThan(usual.index);
    expect(cold.airOffC).toBe(-12);
    const { air, metal } = probed(1500);
    const probe = standingOf({ ...rack, placeOffC: -12 }, 0, 1500, program, [air, metal], air, null);
    expect(probe.airOffC).toBe(0);
    expect(probe.nowC).toBeCloseTo(metal.trace.tempC.at(-1) as number, 6);
  });
  test("read by infrared and then turned off, it cools with the oven from there", () => {
    const off = { ...program, program: [...program.program, { fromS: 1200, airC: 22, tauS: 600 }] };
    const read = { atS: 900, metalC: 190 };
    const on = standingOf(rack, 0, 3000, program, [], null, read);
    const cooled = standingOf(rack, 0, 3000, off, [], null, read);
    expect(cooled.nowC).toBeLessThan(on.nowC - 60);
    expect(cooled.index).toBeLessThan(on.index);
    expect(cooled.index).toBeGreaterThan(0);
  });
  test("an infrared reading sets the metal anew: colder than foretold, it is behind from there", () => {
    const foretold = standingOf(rack, 0, 1500, program, [], null, null);
    const read = standingOf(rack, 0, 1500, program, [], null, { atS: 900, metalC: 120 });
    expect(read.nowC).toBeLessThan(foretold.nowC);
    expect(read.nowC).toBeGreaterThan(120);
    expect(read.index).toBeLessThan(foretold.index);
    expect(read.bandC).toBeNull();
    const ahead = standingOf(rack, 0, 1500, program, [], null, { atS: 1600, metalC: 120 });
    expect(ahead.nowC).toBeCloseTo(foretold.nowC, 6);
  });
  test("what it has held counts from when it came over each point of its sheet", () => {
    const { air, metal } = probed(2000);
    const now = standingOf(rack, 0, 2000, program, [air, metal], air, null);
    const over = metal.trace.timeS.find((_, i) => (metal.trace.tempC[i] as number) >= 180) ?? 0;
    expect(now.heldS[0]).toBeCloseTo(2000 - over, 0);
    expect(now.heldS[1]).toBeLessThan(now.heldS[0] as number);
  });
});

describe("what cure shows", () => {
  test("what a load needed: short by the clock, with its band and how it is known", () => {
    const needs = (inS: number, lostS = 0) =>
      words(
        <LoadNeeds
          measured={[]}
          inS={inS}
          air={program}
          plannedIndex={110}
          holdToo={false}
          lostS={lostS}
          pieces={[{ id: "100", tauS: 300, bandS: [270, 340], schedule }]}
          units="metric"
        />,
      );
    expect(needs(900)).toMatch(/short of what is planned: index 110/);
    expect(needs(900)).toContain("Short");
    expect(needs(2400)).toMatch(/more than it needed/);
    expect(needs(2400)).toContain("Safe");
    expect(needs(2400, 300)).toContain("5 min of it lost to the door");
  });
  test("two masses: which at what minute, since no one moment serves", () => {
    const text = words(
      <LoadNeeds
        measured={[]}
        inS={1900}
        air={program}
        plannedIndex={110}
        holdToo
        pieces={[
          { id: "cover", tauS: 130, bandS: [120, 140], schedule },
          { id: "plate", tauS: 1600, bandS: [1500, 1700], schedule },
        ]}
        units="us"
      />,
    );
    expect(text).toMatch(/No one moment cured all of it/);
    expect(text).toMatch(/cover at \d+ min; plate at \d+ min/);
  });
  test("the planner slows its air by what hangs in it, and learns by section", () => {
    const oven = {
      code: "Oven 1",
      usualSetPointC: 205,
      mostSetPointC: 235,
      airAtDoorC: 60,
      emptyTauS: 140,
      fullTauS: 420,
      fullKgSteel: 900,
      idleKw: 20,
      efficiency: 0.6,
      learnt: [
        { mostMm: 3, hollow: false, hWPerM2K: 20, band: [16, 25] as const, bakes: 9, grade: "measured" as const },
        { mostMm: 1e6, hollow: false, hWPerM2K: 30, band: [21, 39] as const, bakes: 0, grade: "assumed" as const },
      ],
    };
    const piece = (massKg: number | null, sectionMm = 6) => ({
      id: "a",
      what: "",
      metal: "steel" as const,
      sectionMm,
      hollow: false,
      massKg,
      powder: "",
      schedule,
      rack: null,
      load: 0,
      startC: 21,
    });
    const ready = (massKg: number | null) =>
      valueOrThrow(planOf(oven, [piece(massKg)], [{ fromS: 0, airC: 205 }], { leastIndex: 110, holdToo: true }))
        .pieces[0]?.readyS ?? 0;
    expect(ready(800)).toBeGreaterThan(ready(20));
    expect(ready(null)).toBeGreaterThan(ready(20));
    const thin = valueOrThrow(
      planOf(oven, [piece(20, 3)], [{ fromS: 0, airC: 205 }], { leastIndex: 110, holdToo: true }),
    ).pieces[0];
    expect(thin?.tauS).toBeCloseTo((7850 * 490 * 0.0015) / 20, 6);
    // As slow and as quick as the next bake may be, by the same figures.
    const by = (end: "slow" | "quick" | null) =>
      valueOrThrow(planOf(oven, [piece(20, 3)], [{ fromS: 0, airC: 205 }], { leastIndex: 110, holdToo: true }, end))
        .pieces[0];
    expect(by("slow")?.tauS).toBeCloseTo((7850 * 490 * 0.0015) / 16, 6);
    expect(by("quick")?.tauS).toBeCloseTo((7850 * 490 * 0.0015) / 25, 6);
    expect(by("slow")?.readyS ?? 0).toBeGreaterThan(by(null)?.readyS ?? 0);
    expect(by("quick")?.readyS ?? 1e9).toBeLessThan(by(null)?.readyS ?? 0);
  });
  test("charts say what they are, in either unit, and draw nothing that is no number", () => {
    const { air, metal } = probed(1800);
    const survey = valueOrThrow(
      ovenSurvey(
        [
          { place: "A1", trace: { timeS: [0, 60, 120, 180], tempC: [190, 190, 190, 190] } },
          { place: "C3", trace: { timeS: [0, 60, 120, 180], tempC: [203, 203, 203, 203] } },
        ],
        200,
        [0, 180],
      ),
    );
    for (const units of ["metric", "us"] as const) {
      const drawn = html(
        <>
          <HeatChart
            series={[
              { name: "Air", kind: "air", ...air.trace },
              { name: "100", kind: "measured", ...metal.trace },
              { name: "101", kind: "foretold", timeS: [0, 60], tempC: [null, 30] },
            ]}
            sheetC={[180]}
            windowS={[1200, null]}
            nowS={600}
            lastS={1800}
            units={units}
            label="Load 9"
          />
          <ScheduleCurve schedule={schedule} units={units} />
          <StopChart
            effects={[
              { atM: 0, index: 100, overbake: 140 },
              { atM: 1, index: 120, overbake: null },
            ]}
            lengthM={2}
            zones={[{ name: "gel", lengthM: 2, airC: 280, hWPerM2K: 40 }]}
            units={units}
          />
          <ForetoldChart points={[{ foretoldS: 600, measuredS: 630, label: "load 1" }]} />
          <ProofChart points={[{ rack: "1", index: 120, grade: 5, passed: true }]} safeIndex={112} />
          <OvenDrawing
            places={[
              { id: "A1", at: [10, 90], note: "" },
              { id: "C3", at: [90, 10], note: "" },
            ]}
            survey={survey}
            racks={[{ rack: "1042", place: "a1" }]}
            spreadMostC={10}
            inside={{ lengthMm: 6000, widthMm: 1800 }}
            units={units}
          />
        </>,
      );
      expect(drawn).not.toMatch(/NaN|undefined|Infinity/);
      for (const label of ["Load 9", "Minutes needed", "Over-bake by where", "Rub grade", "The oven from above"])
        expect(drawn, label).toContain(label);
      expect(drawn).toContain(units === "us" ? "°F" : "°C");
      expect(drawn).toContain("1042");
    }
  });
  test("every fault and every state of a film has its words", () => {
    const faults: TraceFault[] = [
      { kind: "absurd-rate", channel: "A", atS: 600, fromC: 100, toC: 300 },
      { kind: "heats-like-air", channel: "A", behindC: 2 },
      { kind: "changed-over", channel: "Air", with: "A" },
      { kind: "fahrenheit-as-celsius", peakC: 400, asC: 204 },
      { kind: "drifts", channel: "A", perHourC: -20 },
    ];
    for (const fault of faults) expect(traceFaultWords(fault, "metric")).toMatch(/^[A-Z].{30,}\.$/);
    expect(filmStateWords({ kind: "melted", sinceS: 1, touchUpOpen: true, touchUpLeftS: 200 })).toContain("3 min");
    expect(
      filmStateWords({ kind: "melted", sinceS: 1, touchUpOpen: true, touchUpLeftS: Number.POSITIVE_INFINITY }),
    ).not.toContain("Infinity");
    for (const kind of ["loose", "curing", "cured"] as const)
      expect(filmStateWords({ kind }).length).toBeGreaterThan(4);
  });
});
