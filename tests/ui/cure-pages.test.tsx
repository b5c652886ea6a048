import { describe, expect, test } from "vitest";
import {
  type BakeChannel,
  gelSchedule,
  judgeBake,
  type LoadAdvice,
  ovenSurvey,
  type SetPoint,
  sectionChannels,
} from "@/core/cure";
import { valueOrThrow } from "@/core/result";
import type { LayerCure } from "@/server/cure/layers";
import type { BakedRack, LoadEvent, LoadFile } from "@/server/cure/open-load";
import type { ProofCoverage } from "@/server/cure/proof-coverage";
import { BakesOver } from "@/ui/charts/bakes-over";
import { maybeGel } from "@/ui/coat/setup-texts";
import { AdviceLine } from "@/ui/cure/advice-line";
import { Climbed, ClimbLine } from "@/ui/cure/climb";
import { CoverageOfProof } from "@/ui/cure/coverage-of-proof";
import { LayerRows } from "@/ui/cure/layer-rows";
import { LoadNoted } from "@/ui/cure/load-noted";
import { OVEN_VIEW, placeAt } from "@/ui/cure/oven-drawing";
import { isColdPlace, placeNote } from "@/ui/cure/oven-floor";
import { PulledLoad } from "@/ui/cure/pulled-load";
import { failureText } from "@/ui/words/failures";
import { bakeReason } from "@/ui/words/reasons";
import { html, words } from "../support/markup";

const timeZone = "Europe/London";
const points = [
  { metalC: 180, minutes: 20 },
  { metalC: 190, minutes: 15 },
  { metalC: 200, minutes: 10 },
];
const schedule = { points, overbake: [{ metalC: 200, minutes: 40 }], onsetC: null };
const ramp = (name: string, perMin: number, medium: BakeChannel["medium"] = "metal"): BakeChannel => ({
  name,
  medium,
  trace: {
    timeS: Array.from({ length: 120 }, (_, i) => i * 20),
    tempC: Array.from({ length: 120 }, (_, i) => Math.min(200, 20 + (perMin * i) / 3)),
  },
});

describe("the climb beside the sheet", () => {
  test("within both bounds it says so; beyond one it names the channel, the bound and what follows", () => {
    expect(words(<ClimbLine channels={[ramp("Leg", 20)]} bounds={[10, 60]} units="metric" />)).toContain(
      "within the sheet’s 10.0–60.0 °C",
    );
    const slow = words(<ClimbLine channels={[ramp("Leg", 5), ramp("Seat", 20)]} bounds={[10, 60]} units="metric" />);
    expect(slow).toMatch(/Leg climbs 5\.0 °C a minute, on 10\.0–60\.0 °C: slower than its sheet/);
    expect(slow).not.toContain("Seat");
    expect(words(<ClimbLine channels={[ramp("Leg", 90)]} bounds={[10, 60]} units="us" />)).toMatch(/162\.0 °F.*faster/);
  });
  test("air is not held against it, and without bounds nothing is said", () => {
    expect(words(<ClimbLine channels={[ramp("Air", 90, "air")]} bounds={[10, 60]} units="metric" />)).toContain(
      "within",
    );
    expect(html(<ClimbLine channels={[ramp("Leg", 5)]} bounds={null} units="metric" />)).toBe("");
    expect(words(<Climbed channel={ramp("Leg", 5)} bounds={[10, 60]} units="metric" />)).toBe("5.0 °C slow");
    expect(words(<Climbed channel={ramp("Air", 5, "air")} bounds={[10, 60]} units="metric" />)).toBe("5.0 °C");
    const cold = { ...ramp("Leg", 5), trace: { timeS: [0, 60], tempC: [20, 30] } };
    expect(words(<Climbed channel={cold} bounds={[10, 60]} units="metric" />)).toBe("–");
  });
});

test("this bake over others: each by its rack, over the sheet’s lowest temperature; also where its own has no trace", () => {
  const others = [
    { name: "0801", trace: ramp("a", 20).trace },
    { name: "0802", trace: ramp("b", 24).trace },
  ];
  const own = { name: "0869", trace: ramp("c", 22).trace };
  const drawn = html(<BakesOver own={own} others={others} sheetC={[200, 180]} units="metric" />);
  for (const name of ["0801", "0802", "0869", "180 °C"]) expect(drawn).toContain(name);
  expect(drawn).not.toContain(">200 °C<");
  expect(drawn.match(/<path d="M[^"]*,[^"]*"/g)).toHaveLength(3);
  const without = html(<BakesOver own={null} others={others} sheetC={[180]} units="us" />);
  expect(without.match(/<path d="M[^"]*,[^"]*"/g)).toHaveLength(2);
});

describe("each layer by its own sheet", () => {
  const layer = (over: Partial<LayerCure> = {}): LayerCure => ({
    coatNo: 1,
    layer: "primer",
    powder: "GR-640 Epoxy primer",
    bakes: 2,
    index: 195,
    overbakeIndex: 61,
    gel: null,
    ...over,
  });
  test.each([
    ["gelled", "Gelled", "140 of 100 in its first bake"],
    ["short", "Not gelled", "bake on before the top coat"],
    ["too-far", "Past gel", "the top coat may not bond"],
  ] as const)("a primer that is %s", (state, word, more) => {
    const said = words(<LayerRows layers={[layer({ gel: { state, index: 140 } })]} />);
    expect(said).toContain(word);
    expect(said).toContain(more);
    expect(said).toContain("2 bakes");
  });
  test("more heat than its sheet allows, a single bake, and one without a trace", () => {
    expect(words(<LayerRows layers={[layer({ overbakeIndex: 130 })]} />)).toContain(
      "more heat than its sheet allows in all",
    );
    const bare = words(<LayerRows layers={[layer({ bakes: 1, index: null, overbakeIndex: null, layer: "top" })]} />);
    expect(bare).toMatch(/Coat 1 top coat .* index – over-bake – 1 bake$/);
  });
});

describe("how often cure was proven", () => {
  const coverage = (over: Partial<ProofCoverage["rate"]>, every = 1): ProofCoverage => ({
    rate: { kind: "proof-rate", loads: 12, proven: 11, sinceProven: 0, longestWithout: 1, result: "watch", ...over },
    days: 30,
    every,
    unproven: [{ load: "G 1", oven: "Oven 1", pulledAt: new Date("2026-11-19T10:00:00Z") }],
  });
  test("the share, what is asked, and the loads without one, each a step away", () => {
    const drawn = html(<CoverageOfProof coverage={coverage({})} timeZone={timeZone} />);
    expect(drawn).toContain('href="/cure/loads/oven-1/G%201"');
    const said = words(<CoverageOfProof coverage={coverage({})} timeZone={timeZone} />);
    expect(said).toMatch(/Missed before 11 of 12 loads of the last 30 days .* asked on every load\./);
    expect(said).toContain("Without one: G 1 19 Nov");
  });
  test("owed now, and asked on one in several", () => {
    const said = words(
      <CoverageOfProof coverage={coverage({ result: "out", sinceProven: 4 }, 4)} timeZone={timeZone} />,
    );
    expect(said).toContain("One is owed");
    expect(said).toContain("asked on one load in 4");
    expect(said).toContain("4 since the newest that was");
  });
});

describe("advice for a load", () => {
  const at = (inS: number) => `+${inS}`;
  const said = (advice: LoadAdvice) => words(<AdviceLine advice={advice} at={at} />);
  test.each<[LoadAdvice, RegExp]>([
    [
      { kind: "pull-now", spoilsInS: 600, spoils: "1042" },
      /Pull now Every rack is cured\. Left in, 1042 is over-baked at \+600/,
    ],
    [{ kind: "pull-now", spoilsInS: null, spoils: null }, /it only costs heat/],
    [
      { kind: "not-before", inS: 300, waitsFor: "1042", spoilsInS: 900, spoils: "1043" },
      /Not before \+300 : 1042 is the slowest\. At the latest \+900, or 1043/,
    ],
    [
      { kind: "take-out-first", first: ["a", "b"], inS: 60, latestInS: 120, afterwards: ["c"] },
      /Take out a, b at \+60 , \+120 at the latest ?; leave c in until cured/,
    ],
    [{ kind: "over-baked", pieces: ["a"] }, /had more heat than the sheet allows/],
    [{ kind: "never", pieces: ["a"] }, /will not cure at this set point/],
  ])("%j", (advice, expected) => {
    expect(said(advice)).toMatch(expected);
  });
});

describe("places of the drawn oven", () => {
  const steady = (place: string, c: number) => ({ place, trace: { timeS: [0, 60, 120, 180], tempC: [c, c, c, c] } });
  const oven = {
    code: "Oven 1",
    lamps: false,
    places: [
      { id: "A1", at: [0, 100] as const, note: "" },
      { id: "C3", at: [100, 0] as const, note: "" },
    ],
    survey: valueOrThrow(ovenSurvey([steady("A1", 190), steady("C3", 203)], 200, [0, 180])),
    spreadMostC: 10,
    inside: null,
  };
  test("a cold one says so, in either unit; one never surveyed says nothing", () => {
    expect(placeNote(oven, "a1 ", "metric")).toBe("10.0 °C colder than set, by the newest survey");
    expect(placeNote(oven, "C3", "us")).toBe("5.4 °F hotter than set, by the newest survey");
    expect(placeNote(oven, "B2", "metric")).toBe("");
    expect(isColdPlace(oven, "A1")).toBe(true);
    expect(isColdPlace(oven, "C3")).toBe(false);
    expect(isColdPlace({ ...oven, survey: null }, "A1")).toBe(false);
  });
  test("every place lies inside the drawing, clear of its walls", () => {
    for (const place of oven.places) {
      const [x, y] = placeAt(place.at);
      expect(x).toBeGreaterThanOrEqual(38);
      expect(x).toBeLessThanOrEqual(OVEN_VIEW.width - 38);
      expect(y).toBeGreaterThanOrEqual(28);
      expect(y).toBeLessThanOrEqual(OVEN_VIEW.height - 60);
    }
  });
});

describe("a load on its page", () => {
  const event = (over: Partial<LoadEvent>): LoadEvent => ({
    recordId: `r${over.atS}${over.section ?? ""}`,
    at: new Date(Date.UTC(2026, 10, 23, 9, 0, over.atS ?? 0)),
    by: "maren",
    event: "infrared",
    atS: 0,
    valueC: null,
    emissivity: null,
    aim: null,
    count: null,
    asked: null,
    section: null,
    method: null,
    rack: null,
    note: "",
    ...over,
  });
  const rack: BakedRack = {
    rack: "0729",
    part: "Pier gate",
    faces: [],
    place: "A1",
    placeOffC: 0,
    channel: null,
    metal: "steel",
    sectionMm: 5,
    hollow: false,
    massKg: null,
    powder: "GR-210",
    schedule,
    gel: false,
    learnt: {
      kind: "learnt-heat-transfer",
      hWPerM2K: 25,
      interval: null,
      band: [17.5, 32.5],
      bakes: 0,
      grade: "assumed",
    } as unknown as BakedRack["learnt"],
    tauS: 385,
    tauBandS: [296, 550],
    biot: 0.001,
    lumpedHolds: true,
    plugsIn: null,
  };
  const load = (over: Partial<LoadFile>): LoadFile =>
    ({
      recordId: "r",
      oven: { code: "Oven 1", data: { emptyTauS: 140, airAtDoorC: 60, name: "Oven 1" } },
      loadNo: "K-1",
      closedAt: new Date("2026-11-23T09:00:00Z"),
      pulledAt: new Date("2026-11-23T09:40:00Z"),
      timing: "metal-at-temperature",
      sections: null,
      setPointC: 205,
      racks: [rack],
      racksInLoad: 1,
      channels: [],
      events: [],
      plannedIndex: 110,
      holdToo: true,
      program: [{ fromS: 0, airC: 205 }] satisfies SetPoint[],
      airAtDoorC: 60,
      usualMelt: null,
      recoveryS: null,
      handleBelowC: 40,
      ...over,
    }) as LoadFile;
  const sections = ["Left", "Right"];
  const readings = [0, 120, 240, 360, 480, 600, 720, 840, 960].map((atS) => ({
    section: "Left",
    atS,
    metalC: 198,
    emissivity: 0.95,
    aim: "coated-part" as const,
  }));

  test("under lamps: each section with its index, the one that was not read not known, and its readings in a line", () => {
    const file = load({
      sections,
      timing: "section-by-section",
      channels: valueOrThrow(sectionChannels(sections, readings)),
      events: readings.map((r) => event({ atS: r.atS, valueC: r.metalC, section: "Left", aim: "coated-part" })),
    });
    const said = words(<PulledLoad file={file} units="metric" />);
    expect(said).toMatch(/Left index \d{3} Cured/);
    expect(said).toContain("Right not read Not known");
    expect(said).not.toContain("What it needed");
    const noted = words(<LoadNoted file={file} units="metric" timeZone={timeZone} />);
    expect(noted).toContain("Left 9 readings 09:00–09:16, 198 °C to 198 °C");
    expect(noted).toContain("Right not read");
    expect(noted).not.toContain("Infrared reading");
  });
  test("in an oven: what was noted, in order, with what it means", () => {
    const noted = words(
      <LoadNoted
        file={load({
          usualMelt: { meanS: 300, sdS: 20, loads: 5 },
          events: [
            event({ event: "melted", atS: 480 }),
            event({ atS: 600, valueC: 181, aim: "coated-part", emissivity: 0.95 }),
            event({ atS: 700, valueC: 215, aim: "oven-wall", emissivity: 0.95 }),
            event({ event: "set-point", atS: 800, valueC: 190 }),
            event({ event: "cooling", atS: 2500, method: "fan" }),
            event({ event: "cool", atS: 2600, valueC: 61 }),
            event({ event: "cool", atS: 2900, valueC: 33 }),
            event({ event: "plugs-out", atS: 3000, count: 11, asked: 12 }),
          ],
        })}
        units="metric"
        timeZone={timeZone}
      />,
    );
    for (const part of [
      "Melted, glossy",
      "Infrared reading 181 °C on the coated part",
      "Set point changed 190 °C",
      "before a fan Look at its finish",
      "61 °C Still too warm",
      "33 °C May be taken down",
      "Plugs and masks out 11 of 12 in",
      "Melted after 8.0 min ; usual for the section 5.0 ± 0.3 min (5 loads) Late",
    ])
      expect(noted, part).toContain(part);
  });
  test("nothing noted says where it would stand", () => {
    expect(words(<LoadNoted file={load({})} units="us" timeZone={timeZone} />)).toContain("Nothing yet");
  });
  test("a primer to gel says gelled, not cured", () => {
    const gel = valueOrThrow(gelSchedule({ metalC: 150, leastMin: 5, mostMin: 12 }, points));
    const flat = (minutes: number): BakeChannel => ({
      name: "0729",
      medium: "metal",
      trace: {
        timeS: Array.from({ length: minutes * 6 + 1 }, (_, i) => i * 10),
        tempC: Array.from({ length: minutes * 6 + 1 }, () => 150),
      },
    });
    const said = (minutes: number) =>
      words(
        <PulledLoad
          file={load({
            racks: [{ ...rack, schedule: gel, gel: true, powder: "GR-640 Epoxy primer" }],
            channels: [flat(minutes)],
          })}
          units="metric"
        />,
      );
    expect(said(6)).toContain("GR-640 Epoxy primer to gel");
    expect(said(6)).toMatch(/index 120 on 0729 Gelled/);
    expect(said(3)).toContain("Not gelled");
    expect(said(14)).toContain("Past gel");
  });
  test("without a trace it is by procedure, with what the model says it needed", () => {
    const said = words(<PulledLoad file={load({})} units="metric" />);
    expect(said).toContain("no trace By procedure");
    expect(said).toContain("What it needed, by the oven’s own model");
  });
});

describe("what is typed of a gel", () => {
  test.each([
    ["150 5–12", { metalC: 150, leastMin: 5, mostMin: 12 }],
    ["150  5-12", { metalC: 150, leastMin: 5, mostMin: 12 }],
    ["149,5 4 to 10", { metalC: 149.5, leastMin: 4, mostMin: 10 }],
    ["", null],
  ])("%j is read", (text, expected) => {
    expect(maybeGel(text)).toEqual(expected);
  });
  test.each(["150", "150 5", "150 5–12 3", "hot 5–12"])("%j is said back with how it is typed", (text) => {
    expect(() => maybeGel(text)).toThrow(/gel|range|number/i);
  });
});

describe("refusals say the value and the remedy", () => {
  test.each([
    [{ kind: "still-warm", nowC: 84.3, belowC: 40, load: "484" }, /84 °C.*under 40 °C.*load 484/],
    [{ kind: "over-the-oven", setC: 400, mostC: 240, oven: "Oven 1" }, /400 °C.*Oven 1.*240 °C.*204 °C/],
    [{ kind: "sections-missing", oven: "Lamps 1" }, /Lamps 1.*name its sections/],
    [{ kind: "lamps-one-rack", count: 3 }, /3 racks are too many/],
    [{ kind: "unknown-section", section: "Side", sections: ["Left", "Right"] }, /“Side”.*Left, Right/],
    [{ kind: "section-missing" }, /tap it first/],
    [{ kind: "cooling-needs-method" }, /still air/],
    [{ kind: "only-gelled", index: 121.4, gelled: "gelled" }, /gelled; the top coat and its cure are still to come/],
    [{ kind: "only-gelled", index: 61.4, gelled: "short" }, /not gelled yet \(61 of 100\)/],
    [{ kind: "only-gelled", index: 300, gelled: "too-far" }, /further than its sheet asks/],
    [{ kind: "bad-gel", metalC: 150, leastMin: 5, mostMin: 5 }, /no range.*5–12/],
    [
      { kind: "bad-gel", metalC: 200, leastMin: 5, mostMin: 12, cureMin: 10.2 },
      /as much heat as its whole cure \(10 min/,
    ],
  ])("%j", (failure, expected) => {
    expect(failureText(failure)).toMatch(expected);
  });
  test("a section never read is a reason of its own, and a whole number of minutes has no seconds", () => {
    const verdict = valueOrThrow(judgeBake([ramp("Left", 20)], schedule, { sections: ["Left", "Right"], pullS: 2380 }));
    const said = verdict.reasons.map((r) => bakeReason(r, "metric"));
    expect(said.at(-1)).toMatchObject({ result: "unknown", word: "Not read" });
    expect(said.find((s) => /^Held|^Hold/.test(s.word))?.figure).toMatch(/^of \d+ min$/);
  });
});
