import { describe, expect, test } from "vitest";
import type { TitrationRecipe } from "@/core/bath";
import { judgeOutgas, type PrepHow } from "@/core/preparation";
import { valueOrThrow } from "@/core/result";
import type { DryOffSeen, DryOffs } from "@/server/line/dry-offs";
import { DryOffsSection } from "@/ui/bath/dry-offs";
import { readRecipes, recipeTexts } from "@/ui/bath/recipe-fields";
import { type HistoryData, historyLayers, historyView } from "@/ui/charts/history-view";
import { Plot } from "@/ui/charts/plot/plot";
import { OutgasWords } from "@/ui/prepare/outgas-form";
import { PrepHowFields } from "@/ui/prepare/prep-how";
import { dryOffReason, howWords, metalDecisionName, metalFaultName } from "@/ui/words/preparation";
import { html, words } from "../support/markup";

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const at = new Date("2026-05-04T10:00:00Z");
const ago = (hours: number) => new Date(at.getTime() - hours * HOUR);

/** Checks every four hours: a saw tooth inside the window, with one that is out. */
const checks = (count: number, over: Partial<HistoryData> = {}): HistoryData => ({
  atMs: Array.from({ length: count }, (_, i) => i * 4 * HOUR),
  values: Array.from({ length: count }, (_, i) => (i === 20 ? 6.4 : 5.2 + (i % 6) * 0.08)),
  smooth: null,
  windows: [{ fromMs: 0, lower: 4.8, upper: 5.8 }],
  events: [],
  ...over,
});
const picture = (data: HistoryData, look: number, span: number, breaks = new Set<number>()) => {
  const view = historyView(data, look, span);
  const layers = historyLayers(data, view, breaks, (ms) => `day ${Math.floor(ms / DAY)}`);
  return html(
    <Plot
      label="chart"
      spec={{ x: { domain: [view.fromMs, view.toMs], ticks: [] }, y: { domain: view.y, ticks: [] }, layers }}
    />,
  );
};
/** The path of the checks: the longest one drawn. */
const pathOf = (out: string): string =>
  [...out.matchAll(/ d="(M[^"]*L[^"]*)"/g)].map((m) => m[1] ?? "").sort((a, b) => b.length - a.length)[0] ?? "";

describe("a long chart", () => {
  test("draws the width looked at and one to either side, each check at its moment", () => {
    const data = checks(90);
    const view = historyView(data, 5 * DAY, 5 * DAY);
    expect([view.fromMs, view.toMs]).toEqual([0, 15 * DAY]);
    expect(view.shown[0]).toBe(0);
    expect(view.shown.length).toBe(90);
    expect(view.out).toEqual([20]);
    for (const i of view.shown) {
      expect(data.values[i]).toBeGreaterThan(view.y[0]);
      expect(data.values[i]).toBeLessThan(view.y[1]);
    }
  });
  test("a week outside what is looked at is not searched, its neighbours are there for the line to run on", () => {
    const view = historyView(checks(900), 60 * DAY, 2 * DAY);
    expect(view.shown.length).toBeLessThan(45);
    expect(view.shown[0]).toBe(58 * 6 - 1);
    expect(view.shown.at(-1)).toBe(64 * 6);
    expect(view.out).toEqual([]);
  });
  test("fifty thousand checks are a few thousand points, and the one excursion is among them", () => {
    const many = checks(50_000);
    const view = historyView(many, 0, 50_000 * 4 * HOUR);
    expect(view.shown.length).toBeLessThan(6000);
    expect(view.shown).toContain(20);
    expect(view.out).toEqual([20]);
  });
  test("windows stand as they were: a change is a step on its day, and what is out is out by its own time's", () => {
    const data = checks(60, {
      windows: [
        { fromMs: 0, lower: 4.8, upper: 5.3 },
        { fromMs: 5 * DAY, lower: 4.8, upper: 6.6 },
      ],
    });
    const view = historyView(data, 0, 10 * DAY);
    expect(view.spans.map((s) => [s.fromMs, s.toMs, s.upper])).toEqual([
      [0, 5 * DAY, 5.3],
      [5 * DAY, 20 * DAY, 6.6],
    ]);
    expect(view.out.every((i) => (data.atMs[i] as number) < 5 * DAY)).toBe(true);
    expect(view.out).toContain(20);
    expect(view.out).not.toContain(33);
  });
  test("one limit only, and none, leave the band open to that side", () => {
    for (const window of [
      { fromMs: 0, lower: null, upper: 5.8 },
      { fromMs: 0, lower: 4.8, upper: null },
    ])
      expect(picture(checks(12, { windows: [window] }), 0, 2 * DAY)).toContain("var(--band)");
    expect(picture(checks(12, { windows: [] }), 0, 2 * DAY)).not.toContain("var(--out)");
  });
  test("the line is broken where the bath was made up anew", () => {
    const whole = pathOf(picture(checks(30), 0, 5 * DAY));
    expect(whole.match(/M/g)).toHaveLength(1);
    const broken = pathOf(picture(checks(30), 0, 5 * DAY, new Set([7, 15])));
    expect(broken.match(/M/g)).toHaveLength(3);
    expect(broken.match(/[ML]/g)).toHaveLength(30);
  });
  test("additions are flags with their words, recharges a line through; too many are left out", () => {
    const event = (n: number) => ({ atMs: n * HOUR, event: "addition", label: `addition ${n} L` });
    const out = picture(checks(12, { events: [event(3), { ...event(9), event: "recharge" }] }), 0, 2 * DAY);
    expect(out).toContain("addition 3 L, day 0");
    expect(out.match(/stroke-dasharray="2 3"/g)).toHaveLength(1);
    const crowd = Array.from({ length: 200 }, (_, i) => event(i / 10));
    expect(picture(checks(12, { events: crowd }), 0, 2 * DAY)).not.toContain("addition 0 L");
  });
  test("smoothed: its own line and limits over the checks", () => {
    const data = checks(30);
    const out = picture(
      { ...data, smooth: { values: data.values.map(() => 5.4), lower: 5.2, upper: 5.6 } },
      0,
      5 * DAY,
    );
    expect(out.match(/var\(--sorrel\)/g)).toHaveLength(3);
  });
});

describe("racks out of the dry-off", () => {
  const seen = (over: Partial<DryOffSeen>): DryOffSeen => ({
    rack: "0830",
    part: "Greenhouse frame",
    at: ago(40),
    by: "rufus",
    result: "in",
    reasons: [],
    humidityPercent: 62,
    ...over,
  });
  const section = (racks: readonly DryOffSeen[]) => {
    const dryOffs: DryOffs = {
      from: ago(21 * 24),
      seen: racks,
      humidity: [
        { at: ago(50), percent: 88 },
        { at: ago(20), percent: 61 },
      ],
    };
    return <DryOffsSection dryOffs={dryOffs} now={at} timeZone="Europe/London" />;
  };
  test("damp ones are listed with the humidity they stood in, dry ones only drawn", () => {
    const out = words(
      section([
        seen({}),
        seen({ rack: "0831", result: "out", reasons: ["hollow-not-blown", "too-short"], humidityPercent: 86 }),
        seen({ rack: "0832", result: "out", reasons: ["damp"], humidityPercent: null }),
      ]),
    );
    expect(out).toContain("0831 Greenhouse frame tubes and laps not blown out 86 % humid");
    expect(out).toContain("0832 Greenhouse frame damp");
    expect(out).not.toContain("0830 Greenhouse");
  });
  test("none, all dry, and more than are listed", () => {
    expect(words(section([]))).toBe("No rack was looked at out of the dry-off yet.");
    expect(words(section([seen({})]))).toContain("The one rack came out dry.");
    const many = Array.from({ length: 11 }, (_, i) =>
      seen({ rack: `09${i + 10}`, at: ago(60 - i), result: "out", reasons: ["damp"] }),
    );
    expect(words(section(many))).toContain("and 3 older");
  });
});

describe("words of preparation", () => {
  test("how a step was done, in the order it is asked", () => {
    const how: PrepHow = { cleanliness: "Sa 2½", media: "steel grit", pressure: 650 };
    expect(howWords("blast", how)).toBe("steel grit, 650 kPa, Sa 2½");
    expect(howWords("sand", { grit: 120 })).toBe("grit 120");
    expect(howWords("dust-tape", { media: "x" })).toBe("");
  });
  test("its fields hold what was said, closed under its one line", () => {
    const out = html(
      <PrepHowFields step="blast" said={{ media: "steel shot" }} how={{ media: "steel shot" }} change={() => {}} />,
    );
    expect(out).toContain('aria-expanded="false"');
    expect(out).toContain("steel shot");
    // A list for what it was done with, one for how clean: each shows what stands.
    expect(out.match(/role="combobox"/g)).toHaveLength(2);
    expect(words(<PrepHowFields step="strip" said={{}} how={{}} change={() => {}} />)).toContain("how …");
  });
  test("faults, decisions and reasons have words", () => {
    for (const word of [...Object.values(metalFaultName), ...Object.values(metalDecisionName)])
      expect(word.length).toBeGreaterThan(3);
    expect(dryOffReason("too-short", 18)).toBe("shorter than the 18 min asked");
    expect(dryOffReason("too-short", null)).toBe("too short a time in it");
    expect(dryOffReason("too-hot-for-the-booth", null)).toContain("too much powder");
  });
  test("an outgassing bake says what the coolest metal was held at, or that nothing was held", () => {
    const timeS = Array.from({ length: 61 }, (_, i) => i * 60);
    const flat = (c: number) => ({
      name: "Hood",
      medium: "metal" as const,
      trace: { timeS, tempC: timeS.map(() => c) },
    });
    expect(words(<OutgasWords verdict={valueOrThrow(judgeOutgas([flat(226)], 200))} />)).toMatch(
      /Hood held at 226 °C for 30 min asked 215 °C, 15 °C over the cure’s 200 °C; 60 min at it/,
    );
    const short = { ...flat(226), trace: { timeS: timeS.slice(0, 12), tempC: timeS.slice(0, 12).map(() => 226) } };
    expect(words(<OutgasWords verdict={valueOrThrow(judgeOutgas([short], 200))} />)).toContain(
      "Hood: not held 30 min at any heat",
    );
  });
});

describe("recipes as they are typed", () => {
  const recipe: TitrationRecipe = {
    sampleMl: null,
    titrant: "permanganate 0.042 N",
    indicator: "20 drops of acid",
    endPoint: "pink that stays",
    factor: 60,
    blankMl: 0.1,
    caution: "under the hood",
  };
  const number = (texts: Readonly<Record<string, string>>) => (key: string) => {
    const text = (texts[key] ?? "").trim();
    return text === "" ? null : Number(text);
  };
  test("come back as they were", () => {
    const texts = recipeTexts({ inhibitor: recipe, concentration: { ...recipe, sampleMl: 10, factor: 0.25 } });
    expect(readRecipes(texts, ["inhibitor", "concentration"], number(texts))).toEqual({
      inhibitor: recipe,
      concentration: { ...recipe, sampleMl: 10, factor: 0.25 },
    });
  });
  test("of a value no longer watched are dropped; with nothing typed there is none; half typed is kept for the check", () => {
    const texts = recipeTexts({ inhibitor: recipe });
    expect(readRecipes(texts, ["concentration"], number(texts))).toEqual({});
    expect(readRecipes({}, ["inhibitor"], number({}))).toEqual({});
    const half = { "inhibitor.recipe.titrant": "permanganate" };
    expect(readRecipes(half, ["inhibitor"], number(half))).toMatchObject({ inhibitor: { factor: 0, endPoint: "" } });
  });
});
