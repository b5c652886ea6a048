import { describe, expect, test } from "vitest";
import { type BakeChannel, type BakeVerdict, judgeBake, type PowderSchedule } from "@/core/cure";
import { valueOrThrow } from "@/core/result";
import { bakeInShort, bakeReason } from "@/ui/words/reasons";

// One sheet for all: 10 min at 200 °C and 20 min at 180 °C, over-baked after 30 min at 200 °C.
const schedule: PowderSchedule = {
  points: [
    { metalC: 180, minutes: 20 },
    { metalC: 200, minutes: 10 },
  ],
  overbake: [{ metalC: 200, minutes: 30 }],
};

/**
 * A piece that stands at each temperature for so many minutes, a sample every ten seconds; null: the recorder gave none.
 * Every other sample is a tenth of a degree up: a figure that never moves is a dead thermocouple.
 */
const channel = (
  name: string,
  ...steps: readonly (readonly [tempC: number | null, minutes: number])[]
): BakeChannel => {
  const tempC = steps.flatMap(([c, minutes]) =>
    Array.from({ length: minutes * 6 }, (_, i) => (c === null ? null : c + (i % 2) / 10)),
  );
  return { name, medium: "metal", trace: { timeS: tempC.map((_, i) => i * 10), tempC } };
};
const judge = (...channels: BakeChannel[]): BakeVerdict => valueOrThrow(judgeBake(channels, schedule));
const kinds = (verdict: BakeVerdict) => verdict.reasons.map((r) => r.kind);
const about = (verdict: BakeVerdict, name: string) =>
  verdict.reasons.flatMap((r) => ("channel" in r && r.channel === name ? [r.kind] : []));

describe("one piece", () => {
  test("held as the sheet says: in, by index and by hold", () => {
    const verdict = judge(channel("Leaf", [200, 11]));
    expect(verdict).toMatchObject({ result: "in", decidingChannel: "Leaf", unknownPlaces: [] });
    expect(kinds(verdict)).toEqual(["index-met", "hold-met"]);
  });
  test("half of it: out, with what it reached and what it needed", () => {
    const verdict = judge(channel("Leaf", [200, 5]));
    expect(verdict.result).toBe("out");
    expect(verdict.reasons).toEqual([
      { kind: "index-short", channel: "Leaf", index: verdict.decidingIndex },
      { kind: "hold-short", channel: "Leaf", atC: 200, longestS: 290, neededS: 600 },
    ]);
    expect(verdict.decidingIndex).toBeCloseTo(100 * (290 / 600), 0);
  });
  test("long and lukewarm: the index is met and no hold is, which is a watch that names both", () => {
    const verdict = judge(channel("Leaf", [176, 40]));
    expect(verdict.result).toBe("watch");
    expect(kinds(verdict)).toEqual(["index-met", "hold-short", "only-index-met"]);
  });
  test("a hold in two halves is not a hold, though the index adds them up", () => {
    const verdict = judge(channel("Leaf", [200, 6], [150, 2], [200, 6]));
    expect(verdict.result).toBe("watch");
    expect(verdict.channels[0]?.holds.find((h) => h.atC === 200)).toMatchObject({ met: false, neededS: 600 });
    expect(verdict.channels[0]?.holds.find((h) => h.atC === 200)?.totalS).toBeGreaterThan(600);
  });
  test("what decides is said first", () => {
    const trace = channel("Leaf", [176, 40]);
    const byHold = valueOrThrow(judgeBake([trace], schedule, { decidedBy: "hold" }));
    expect(byHold.decidedBy).toBe("hold");
    expect(kinds(byHold)).toEqual(["hold-short", "index-met", "only-index-met"]);
  });
  test("hotter than the sheet goes: cured, and how much of it is beyond the sheet is said", () => {
    const verdict = judge(channel("Leaf", [225, 6]));
    expect(verdict.reasons).toContainEqual({ kind: "extrapolated", channel: "Leaf", share: 1 });
  });
  test("a sheet of one point takes an activation energy, and says so", () => {
    const verdict = valueOrThrow(judgeBake([channel("Leaf", [200, 12])], { points: [{ metalC: 200, minutes: 10 }] }));
    expect(verdict.result).toBe("in");
    expect(kinds(verdict)).toContain("assumed-activation-energy");
  });
  test("cooler than the onset earns nothing, however long", () => {
    const verdict = judge(channel("Leaf", [139.5, 300]));
    expect(verdict.decidingIndex).toBe(0);
    expect(verdict.onsetC).toBe(140);
    const own = valueOrThrow(judgeBake([channel("Leaf", [139.5, 300])], { ...schedule, onsetC: 130 }));
    expect(own.decidingIndex).toBeGreaterThan(0);
  });
});

describe("over-bake", () => {
  test("past the limit is out, however well it is cured", () => {
    const verdict = judge(channel("Leaf", [200, 31]));
    expect(verdict.result).toBe("out");
    expect(kinds(verdict)).toEqual(["index-met", "hold-met", "overbaked"]);
    expect(bakeInShort(verdict, "metric")).toMatchObject({ result: "out", word: "Over-baked" });
  });
  test("just within it is in", () => {
    expect(judge(channel("Leaf", [200, 29])).result).toBe("in");
  });
  test("a gap that would take it past, had it stayed hot: not known", () => {
    // Minutes without a number make a channel dead; a recorder that was off leaves no rows at all.
    const { trace } = channel("Leaf", [200, 38]);
    const keep = (s: number) => s < 1200 || s >= 2100;
    const gap = {
      name: "Leaf",
      medium: "metal" as const,
      trace: {
        timeS: trace.timeS.filter(keep),
        tempC: trace.tempC.filter((_, i) => keep(trace.timeS[i] as number)),
      },
    };
    const open = judge(gap);
    expect(open.result).toBe("unknown");
    expect(open.channels[0]?.overbakeIndex).toBeLessThan(100);
    expect(open.channels[0]?.overbakeIndexGapsFilledHot).toBeGreaterThan(100);
    expect(kinds(open)).toEqual(["index-met", "hold-met", "overbake-unknown-in-gap", "gap"]);
    expect(bakeInShort(open, "metric").word).toBe("Over-bake?");
  });
  test("without an over-bake limit on the sheet none is made up", () => {
    const verdict = valueOrThrow(judgeBake([channel("Leaf", [200, 300])], { points: schedule.points }));
    expect(verdict.result).toBe("in");
    expect(verdict.channels[0]).toMatchObject({ overbakeIndex: null, overbakeIndexGapsFilledHot: null });
  });
});

describe("several pieces", () => {
  test("the load is its worst place; the slowest decides cure", () => {
    const verdict = judge(channel("Thin", [200, 14]), channel("Thick", [120, 9], [200, 5]));
    expect(verdict).toMatchObject({ result: "out", decidingChannel: "Thick" });
    expect(about(verdict, "Thin")).toEqual([]);
  });
  test("where another than the slowest makes it worse, that one gives its reasons too", () => {
    const slow = channel("Slow", [200, 11], [60, 7]);
    const broken = channel("Broken", [200, 8], [150, 2], [200, 8]);
    const verdict = judge(slow, broken);
    expect(verdict).toMatchObject({ result: "watch", decidingChannel: "Slow" });
    expect(about(verdict, "Slow")).toEqual(["index-met", "hold-met"]);
    expect(about(verdict, "Broken")).toEqual(["hold-short", "only-index-met"]);
    expect(bakeInShort(verdict, "metric").text).toMatch(/^Broken /);
  });
  test("the quickest of them over-baked makes the load out, and is named", () => {
    const verdict = judge(channel("Thin", [200, 34]), channel("Thick", [150, 22], [200, 12]));
    expect(verdict).toMatchObject({ result: "out", decidingChannel: "Thick" });
    expect(about(verdict, "Thin")).toContain("overbaked");
    expect(bakeInShort(verdict, "us")).toMatchObject({ word: "Over-baked", text: expect.stringMatching(/^Thin /) });
  });
  test("every over-baked piece is named, not the worst alone", () => {
    const verdict = judge(channel("A", [200, 40]), channel("B", [200, 34], [100, 6]));
    expect(verdict.reasons.filter((r) => r.kind === "overbaked")).toHaveLength(2);
  });
  test("air never decides, hot or cold", () => {
    const air = (c: number): BakeChannel => ({ ...channel("Air", [c, 12]), medium: "air" });
    expect(judge(channel("Leaf", [200, 12]), air(60))).toMatchObject({ result: "in", decidingChannel: "Leaf" });
    expect(judge(channel("Leaf", [200, 12]), air(390))).toMatchObject({ result: "in" });
  });
  test("a place that went dark before the pull is not known, and does not judge the others", () => {
    const verdict = judge(channel("Leaf", [200, 12], [60, 3]), channel("Post", [200, 4], [null, 11]));
    // Cured by the worst known place; that nothing was over-baked nobody can say.
    expect(verdict).toMatchObject({ result: "watch", decidingChannel: "Leaf", unknownPlaces: ["Post"] });
    expect(about(verdict, "Post")).toEqual(["channel-dead", "overbake-unknown-dark"]);
    expect(bakeInShort(verdict, "metric").word).toBe("Over-bake?");
    const noLimit = valueOrThrow(
      judgeBake([channel("Leaf", [200, 12]), channel("Post", [200, 4], [null, 8])], { points: schedule.points }),
    );
    expect(noLimit).toMatchObject({ result: "in", unknownPlaces: ["Post"] });
    expect(verdict.channels.find((c) => c.name === "Post")).toMatchObject({ result: "unknown", deadFromS: 240 });
  });
  test("a trace that ends before the pull is recorded until then: never short, and over-baked only where it was", () => {
    const at = (pullS: number, ...steps: Parameters<typeof channel>[1][]) =>
      valueOrThrow(judgeBake([channel("Leaf", ...steps)], schedule, { pullS }));
    const short = at(900, [200, 5]);
    expect(short).toMatchObject({ result: "unknown", channels: [{ recordedUntilS: 290 }] });
    expect(short.reasons).toContainEqual({ kind: "recorded-until", channel: "Leaf", untilS: 290, pullS: 900 });
    expect(bakeInShort(short, "metric").word).toBe("Recorded until");
    expect(at(320, [200, 5])).toMatchObject({ result: "out", channels: [{ recordedUntilS: null }] });
    // Cured by its end; as hot as it was until a pull at 25 min it is not over-baked, until one at 35 min it may be.
    expect(at(25 * 60, [200, 11]).result).toBe("in");
    expect(at(35 * 60, [200, 11]).result).toBe("unknown");
    expect(at(45 * 60, [200, 32]).result).toBe("out");
  });
  test("one that went dark after the pull has told all it had to", () => {
    const leaf = channel("Leaf", [200, 12], [60, 5]);
    const post = channel("Post", [200, 12], [60, 2], [null, 3]);
    const verdict = valueOrThrow(judgeBake([leaf, post], schedule, { pullS: 720 }));
    expect(verdict).toMatchObject({ result: "in", unknownPlaces: [] });
  });
  test("a channel stuck at one figure while the others climb is dead", () => {
    const climbing = channel("Leaf", [60, 1], [120, 1], [200, 12]);
    const stuck = {
      ...climbing,
      name: "Post",
      trace: { ...climbing.trace, tempC: climbing.trace.timeS.map(() => 23) },
    };
    expect(judge(climbing, stuck)).toMatchObject({ decidingChannel: "Leaf", unknownPlaces: ["Post"] });
  });
  test("none left alive: no verdict, and the channels by name", () => {
    expect(judgeBake([channel("A", [200, 1], [null, 11])], schedule)).toMatchObject({
      error: { kind: "no-live-metal-channel", channels: ["A"] },
    });
    expect(judgeBake([], schedule)).toMatchObject({ error: { kind: "no-live-metal-channel", channels: [] } });
  });
});

describe("bad input is refused by name", () => {
  const good = channel("Leaf", [200, 12]);
  const withTrace = (timeS: number[], tempC: (number | null)[]): BakeChannel => ({ ...good, trace: { timeS, tempC } });
  const cases: [string, BakeChannel[], PowderSchedule, object][] = [
    ["one sample", [withTrace([0], [20])], schedule, { kind: "no-samples", channel: "Leaf", got: 1, need: 2 }],
    ["uneven", [withTrace([0, 10], [20])], schedule, { kind: "lengths-differ", times: 2, temperatures: 1 }],
    ["time backwards", [withTrace([0, 20, 10], [1, 2, 3])], schedule, { kind: "times-out-of-order", index: 2 }],
    ["time twice", [withTrace([0, 10, 10], [1, 2, 3])], schedule, { kind: "times-out-of-order", timeS: 10 }],
    ["no time", [withTrace([0, Number.NaN], [1, 2])], schedule, { kind: "not-finite", index: 1 }],
    ["a melting point", [withTrace([0, 10], [20, 1500])], schedule, { kind: "beyond-instrument", tempC: 1500 }],
    ["colder than any shop", [withTrace([0, 10], [-80, 20])], schedule, { kind: "beyond-instrument", least: -60 }],
    ["no number", [withTrace([0, 10], [20, Number.NaN])], schedule, { kind: "beyond-instrument" }],
    ["no sheet", [good], { points: [] }, { kind: "no-points" }],
    ["no minutes", [good], { points: [{ metalC: 200, minutes: 0 }] }, { kind: "bad-point", minutes: 0 }],
    [
      "slower when hotter",
      [good],
      {
        points: [
          { metalC: 180, minutes: 10 },
          { metalC: 200, minutes: 20 },
        ],
      },
      { kind: "not-faster-when-hotter" },
    ],
    [
      "a bad over-bake",
      [good],
      { ...schedule, overbake: [{ metalC: 200, minutes: -1 }] },
      { kind: "bad-point", minutes: -1 },
    ],
  ];
  for (const [name, channels, sheet, error] of cases)
    test(name, () => expect(judgeBake(channels, sheet)).toMatchObject({ ok: false, error }));
});

describe("in words", () => {
  test("no two reasons of one verdict read the same", () => {
    const verdict = judge(
      channel("Slow", [200, 11], [60, 30]),
      channel("Broken A", [200, 8], [150, 2], [200, 31]),
      channel("Broken B", [200, 8], [150, 2], [200, 31]),
      channel("Dark", [200, 4], [null, 37]),
    );
    const said = verdict.reasons.map((r) => Object.values(bakeReason(r, "metric")).join(" "));
    expect(said.length).toBeGreaterThanOrEqual(5);
    expect(new Set(said).size).toBe(said.length);
  });
  test("the word is that of the verdict, never a better one", () => {
    const loads: [BakeVerdict, string, string][] = [
      [judge(channel("Leaf", [200, 12])), "in", "Cured"],
      [judge(channel("Leaf", [200, 5])), "out", "Short"],
      [judge(channel("Leaf", [200, 35])), "out", "Over-baked"],
      [judge(channel("Leaf", [176, 40])), "watch", "Hold short"],
    ];
    for (const [verdict, result, word] of loads)
      expect([verdict.result, bakeInShort(verdict, "metric").word]).toEqual([result, word]);
    const held = valueOrThrow(judgeBake([channel("Leaf", [200, 12])], schedule, { decidedBy: "hold" }));
    expect(bakeInShort(held, "metric").word).toBe("Cured");
  });
});
