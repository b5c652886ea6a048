import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, test } from "vitest";
import { BathChart, type BathChartProps } from "@/ui/charts/bath-chart";
import { FilmHistogram } from "@/ui/charts/film-histogram";
import { PartSketch } from "@/ui/charts/part-sketch";
import { TraceChart } from "@/ui/charts/trace-chart";
import { CreepChart } from "@/ui/field/creep-chart";
import { Grade, Shape, Verdict } from "@/ui/marks/verdict";
import { type Bead, Thread } from "@/ui/rack/thread";

const HOUR = 3_600_000;
const numbersIn = (html: string): number[] =>
  [...html.matchAll(/ (?:x|y|cx|cy|x1|x2|y1|y2|width|height|r)="([^"]*)"/g)].map((m) => Number(m[1]));
/** Nothing drawn at a place that is no place. */
const drawn = (html: string) => {
  expect(html).not.toMatch(/NaN|Infinity|undefined|\[object/);
  for (const n of numbersIn(html)) expect(Number.isFinite(n)).toBe(true);
  return html;
};

describe("bath chart", () => {
  const base: BathChartProps = {
    name: "Tank 3 conversion, pH",
    points: [5.2, 5.3, 5.6, 5.9].map((value, i) => ({
      atMs: i * 4 * HOUR,
      value,
      label: `${i}  ${value} `,
      result: value > 5.8 ? "out" : "in",
      marked: i === 3,
    })),
    events: [{ atMs: 6 * HOUR, label: "addition 9.5 L" }],
    window: { lower: 4.8, upper: 5.8, watchLower: 4.9, watchUpper: 5.6 },
    control: [{ fromMs: 0, toMs: 12 * HOUR, lower: [5, 5.2], upper: [5.5, 5.7] }],
    wedge: [],
    checkBy: { atMs: 16 * HOUR, label: "check by 10:00" },
    days: [{ atMs: 0, label: "20 Nov" }],
    digits: 2,
  };
  const html = (over: Partial<BathChartProps> = {}) => drawn(renderToStaticMarkup(<BathChart {...base} {...over} />));
  test("names itself, its limits, its flag and when it is due", () => {
    const out = html();
    for (const text of ["Tank 3 conversion, pH", "5.80", "4.80", "addition 9.5 L", "check by 10:00", "20 Nov"])
      expect(out, text).toContain(text);
  });
  test("a point out of its window is drawn by shape as well as colour", () => {
    const inside = html({ points: base.points.slice(0, 3) });
    const marks = (text: string) => (text.match(/<rect/g) ?? []).length;
    expect(marks(html())).toBeGreaterThan(marks(inside));
  });
  test("a single check, all the same, no window and no chart are drawn too", () => {
    html({ points: base.points.slice(0, 1), checkBy: null, events: [] });
    html({ points: base.points.map((p) => ({ ...p, value: 5.2 })) });
    html({ window: { lower: null, upper: null }, control: [] });
    html({ points: base.points.slice(0, 1), window: { lower: null, upper: null }, control: [], checkBy: null });
  });
  test("without any check it says what to do", () => {
    expect(html({ points: [] })).toContain("No check on record yet");
  });
});

describe("trace chart", () => {
  const timeS = Array.from({ length: 60 }, (_, i) => i * 30);
  const channel = (name: string, more: object = {}) => ({
    name,
    medium: "metal" as const,
    timeS,
    tempC: timeS.map((s) => 20 + 180 * (1 - Math.exp(-s / 400))),
    index: 88,
    deciding: name === "Thick",
    dead: false,
    ...more,
  });
  const draw = (channels: ReturnType<typeof channel>[], units: "metric" | "us" = "metric", more: object = {}) =>
    drawn(
      renderToStaticMarkup(
        <TraceChart
          channels={channels}
          points={[
            { metalC: 180, minutes: 20 },
            { metalC: 200, minutes: 10 },
          ]}
          onsetC={140}
          gaps={[]}
          crossings={[{ s: 500, c: 180 }]}
          pullS={1500}
          units={units}
          {...more}
        />,
      ),
    );
  test("each channel is named at its end", () => {
    const out = draw([channel("Thick"), channel("Thin"), channel("Air", { medium: "air" })]);
    for (const name of ["Thick", "Thin", "Air"]) expect(out).toContain(name);
  });
  test("a dead channel, a gap and samples without a number leave no broken drawing", () => {
    draw(
      [channel("Thick", { tempC: timeS.map((_, i) => (i > 20 ? null : 100)), dead: true }), channel("Thin")],
      "metric",
      {
        gaps: [{ fromS: 300, toS: 600 }],
      },
    );
    draw([channel("Thick", { tempC: timeS.map(() => null) })]);
    draw([channel("Thick", { timeS: [0], tempC: [20] })], "metric", { pullS: null, crossings: [] });
  });
  test("in Fahrenheit its figures are Fahrenheit", () => {
    expect(draw([channel("Thick")], "us")).toContain("°F");
    expect(draw([channel("Thick")])).not.toContain("°F");
  });
});

describe("part sketch", () => {
  const face = {
    id: "A",
    name: "Face A",
    outline: [
      [0, 0],
      [100, 0],
      [100, 100],
      [0, 100],
    ] as [number, number][],
    recessFromY: 90,
    spots: [
      { id: "A1", at: [50, 10] as [number, number], meanUm: 72.4, result: "in" as const },
      { id: "A2", at: [50, 50] as [number, number], meanUm: null, result: "next" as const },
      { id: "A3", at: [50, 92] as [number, number], meanUm: 41, result: "out" as const },
    ],
  };
  test("shows each spot with its mean, in the person's unit", () => {
    const metric = drawn(renderToStaticMarkup(<PartSketch faces={[face]} units="metric" />));
    for (const text of ["Face A", "A1", "A2", "A3", ">72<"]) expect(metric).toContain(text);
    const us = drawn(renderToStaticMarkup(<PartSketch faces={[face]} units="us" />));
    expect(us).toContain(">2.85<");
    expect(us).not.toContain(">72<");
  });
  test("a mark is drawn where the defect sits", () => {
    const out = drawn(
      renderToStaticMarkup(
        <PartSketch faces={[face]} units="metric" marks={[{ face: "A", x: 10, y: 80, label: "here" }]} />,
      ),
    );
    expect(out).toContain("here");
  });
});

describe("film histogram and creep", () => {
  test("are drawn for many values, one, and values all the same", () => {
    for (const values of [Array.from({ length: 40 }, (_, i) => 60 + (i % 13)), [72], Array(12).fill(72)])
      drawn(
        renderToStaticMarkup(
          <FilmHistogram valuesUm={values} minUm={60} maxUm={90} lowestUm={48} meanUm={72} units="metric" />,
        ),
      );
    drawn(
      renderToStaticMarkup(
        <FilmHistogram valuesUm={[]} minUm={60} maxUm={null} lowestUm={48} meanUm={null} units="us" />,
      ),
    );
  });
  test("creep zones carry their figures", () => {
    const zones = [{ zone: "bay 1, splash", widthsMm: [3, 3.5, 3.7], meanMm: 3.4 }];
    expect(drawn(renderToStaticMarkup(<CreepChart zones={zones} units="metric" />))).toContain("3.4");
    expect(drawn(renderToStaticMarkup(<CreepChart zones={zones} units="us" />))).not.toContain("3.4 mm");
    drawn(renderToStaticMarkup(<CreepChart zones={[{ zone: "none", widthsMm: [0], meanMm: 0 }]} units="metric" />));
  });
});

describe("marks", () => {
  test("the four results differ by shape and by word, not by colour alone", () => {
    const shapes = (["in", "watch", "out", "unknown"] as const).map((result) =>
      renderToStaticMarkup(<Shape result={result} />),
    );
    expect(new Set(shapes.map((s) => s.replace(/class="[^"]*"/g, "").replace(/aria-label="[^"]*"/, ""))).size).toBe(4);
    expect(shapes.map((s) => /aria-label="([^"]*)"/.exec(s)?.[1])).toEqual(["in", "watch", "out", "not known"]);
  });
  test("the four grades differ by drawing and are named", () => {
    const grades = (["measured", "by-procedure", "assumed", "unknown"] as const).map((grade) =>
      renderToStaticMarkup(<Grade grade={grade} />),
    );
    expect(
      new Set(grades.map((s) => s.replace(/(aria-label|class)="[^"]*"/g, "").replace(/<title>.*<\/title>/, ""))).size,
    ).toBe(4);
    for (const [i, word] of ["measured", "by procedure", "assumed", "not known"].entries())
      expect(grades[i]).toContain(word);
  });
  test("a verdict says its word beside its shape", () => {
    expect(renderToStaticMarkup(<Verdict result="out">Thin</Verdict>)).toMatch(/<svg.*Thin/s);
  });
});

describe("thread", () => {
  const bead = (key: string, more: Partial<Bead> = {}): Bead => ({
    key,
    stage: key,
    time: "08:00",
    text: `text of ${key}`,
    note: "",
    result: "in",
    grade: "measured",
    href: null,
    ...more,
  });
  test("beads in order, each with its verdict and its grade", () => {
    const out = renderToStaticMarkup(
      <Thread beads={[bead("Plan"), bead("Coat", { result: "out" }), bead("Field", { dashed: true })]} />,
    );
    expect(out.indexOf("text of Plan")).toBeLessThan(out.indexOf("text of Coat"));
    expect(out).toContain('aria-label="out"');
    expect((out.match(/<li/g) ?? []).length).toBe(3);
    expect(out).toContain("repeating-linear-gradient");
  });
  test("a branch is drawn as one, and said to those who cannot see it", () => {
    const out = renderToStaticMarkup(
      <Thread beads={[bead("Release"), bead("Scuff", { branch: 1 }), bead("Coat", { branch: 1 })]} />,
    );
    expect(out).toContain("rounded-tr");
    expect(out).toContain("Pass 2 through the shop: ");
    expect((out.match(/Pass 2/g) ?? []).length).toBe(1);
    expect(renderToStaticMarkup(<Thread beads={[bead("Release"), bead("Scuff")]} />)).not.toContain("rounded-tr");
  });
});
