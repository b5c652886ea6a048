import { describe, expect, test } from "vitest";
import { cureIndex, fitCureCurve, judgeBake, type SectionReading, sectionChannels, sectionStates } from "@/core/cure";
import { valueOrThrow } from "@/core/result";

const schedule = {
  points: [
    { metalC: 180, minutes: 20 },
    { metalC: 190, minutes: 15 },
    { metalC: 200, minutes: 10 },
  ],
};
const curve = valueOrThrow(fitCureCurve(schedule.points));
const read = (section: string, atS: number, metalC: number, over: object = {}): SectionReading => ({
  section,
  atS,
  metalC,
  emissivity: 0.95,
  aim: "coated-part",
  ...over,
});
const every = (section: string, fromS: number, toS: number, metalC: number, stepS = 120) =>
  Array.from({ length: Math.floor((toS - fromS) / stepS) + 1 }, (_, i) => read(section, fromS + i * stepS, metalC));
const names = ["Top", "Middle", "Foot"];
const states = (readings: SectionReading[], nowS: number, least = 100) =>
  valueOrThrow(sectionStates(names, readings, schedule, nowS, least));

describe("a piece cured section by section under lamps", () => {
  test("each section has its own minutes: the index is that of its own readings, straight between them", () => {
    const readings = [...every("Top", 0, 1200, 190), ...every("Middle", 1500, 2100, 200)];
    const [top, middle, foot] = states(readings, 2100);
    const whole = valueOrThrow(
      cureIndex(
        { timeS: readings.slice(0, 11).map((r) => r.atS), tempC: readings.slice(0, 11).map(() => 190) },
        curve,
        140,
      ),
    );
    expect(top?.index).toBeCloseTo(whole.index, 6);
    expect(top).toMatchObject({ state: "cured", readings: 11, grade: "measured", moreS: 0 });
    expect(middle).toMatchObject({ state: "under-way" });
    expect(middle?.heldS).toBeCloseTo(600, 6);
    expect(foot).toMatchObject({ state: "not-begun", index: 0, last: null, grade: "unknown", moreS: null });
  });
  test("now counts on from the last reading, up to five minutes; then the stretch is broken and adds nothing", () => {
    const readings = every("Top", 0, 600, 190);
    const [at600] = states(readings, 600);
    const [at700] = states(readings, 700);
    const [at1000] = states(readings, 1000);
    expect(at700?.indexNow).toBeGreaterThan(at600?.indexNow ?? 0);
    expect(at700?.index).toBe(at600?.index);
    expect(at1000).toMatchObject({ broken: true });
    expect(at1000?.indexNow).toBe(at600?.index);
    // What is still needed is counted down by the same rate.
    expect((at600?.moreS ?? 0) - (at700?.moreS ?? 0)).toBeCloseTo(100, 6);
  });
  test("a wait of more than five minutes between two readings is a gap, also among few readings", () => {
    const apart = [read("Top", 0, 200), read("Top", 400, 200), read("Top", 800, 200)];
    expect(states(apart, 800)[0]?.index).toBe(0);
    const near = [read("Top", 0, 200), read("Top", 300, 200), read("Top", 600, 200)];
    expect(states(near, 600)[0]?.index).toBeGreaterThan(90);
    const both = [...every("Top", 0, 300, 200, 60), ...every("Top", 900, 1200, 200, 60)];
    const [twice] = states(both, 1200);
    expect(twice?.index).toBeCloseTo(2 * (states(every("Top", 0, 300, 200, 60), 300)[0]?.index ?? 0), 6);
    expect(twice?.heldS).toBe(300);
  });
  test("readings that say nothing of the part are counted and not relied on", () => {
    const readings = [
      ...every("Top", 0, 240, 190),
      read("Top", 360, 230, { aim: "rack" }),
      read("Top", 380, 230, { emissivity: 0.5 }),
    ];
    expect(states(readings, 400)[0]).toMatchObject({ readings: 3, doubted: 2, last: { metalC: 190, atS: 240 } });
  });
  test("metal under the onset earns nothing, and nobody can say how long it needs", () => {
    expect(states(every("Top", 0, 600, 120), 600)[0]).toMatchObject({ index: 0, moreS: null, state: "under-way" });
  });
  test.each<[string, SectionReading[], object]>([
    ["a section that is none", [read("Side", 0, 190)], { kind: "unknown-section", section: "Side" }],
    [
      "an emissivity that cannot be",
      [read("Top", 0, 190, { emissivity: 0 })],
      { kind: "bad-input", name: "emissivity" },
    ],
    ["two at one moment", [read("Top", 60, 190), read("Top", 60, 191)], { kind: "times-out-of-order" }],
  ])("%s is refused", (_, readings, error) => {
    expect(sectionStates(names, readings, schedule, 100)).toMatchObject({ ok: false, error });
    expect(sectionChannels(names, readings)).toMatchObject({ ok: false, error });
  });
});

describe("judged as a bake", () => {
  const channels = (readings: SectionReading[]) => valueOrThrow(sectionChannels(names, readings));
  const full = [...every("Top", 0, 1500, 192), ...every("Middle", 2000, 3600, 191), ...every("Foot", 4000, 5500, 193)];
  test("every section cured is a cure; the slowest section decides", () => {
    const verdict = valueOrThrow(judgeBake(channels(full), schedule, { sections: names }));
    expect(verdict.result).toBe("in");
    expect(verdict.unknownPlaces).toEqual([]);
    const least = [...verdict.channels].sort((a, b) => a.index - b.index)[0];
    expect(verdict.decidingChannel).toBe(least?.name);
  });
  test("one section never read leaves the whole unknown, and is named", () => {
    const some = full.filter((r) => r.section !== "Foot");
    const verdict = valueOrThrow(judgeBake(channels(some), schedule, { sections: names }));
    expect(verdict.result).toBe("unknown");
    expect(verdict.unknownPlaces).toEqual(["Foot"]);
    expect(verdict.reasons).toContainEqual({ kind: "section-unread", channel: "Foot" });
    // One reading is no trace.
    expect(channels([...some, read("Foot", 4000, 190)]).map((c) => c.name)).toEqual(["Top", "Middle"]);
  });
  test("a section that is short is out, whatever else was not read", () => {
    const short = [...every("Top", 0, 300, 185), ...every("Middle", 2000, 3600, 191)];
    expect(valueOrThrow(judgeBake(channels(short), schedule, { sections: names })).result).toBe("out");
  });
  test("a section held perfectly still while another warms is no dead probe", () => {
    const still = [...every("Top", 0, 1500, 112, 60), read("Middle", 0, 60), read("Middle", 240, 140)];
    const verdict = valueOrThrow(judgeBake(channels(still), schedule, { sections: ["Top", "Middle"] }));
    expect(verdict.channels.map((c) => c.deadFromS)).toEqual([null, null]);
    // As probes of one oven the first would be called stuck.
    expect(valueOrThrow(judgeBake(channels(still), schedule)).channels[0]?.deadFromS).not.toBeNull();
  });
  test("without a section read at all there is no verdict", () => {
    expect(judgeBake([], schedule, { sections: names })).toMatchObject({ error: { kind: "no-live-metal-channel" } });
  });
});
