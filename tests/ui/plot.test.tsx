import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type Box, clipped, type Layout, layoutOf, overlap, type Segment, spread } from "@/ui/charts/plot/layout";
import { Plot } from "@/ui/charts/plot/plot";
import { domainOf, type Layer, type Spec } from "@/ui/charts/plot/spec";
import { axisOf, minuteTicks } from "@/ui/charts/ticks";
import { html } from "../support/markup";

/** Boxes of words may touch, and round to a tenth of a px. */
const inner = (b: Box): Box => ({ left: b.left + 0.2, right: b.right - 0.2, top: b.top + 0.2, bottom: b.bottom - 0.2 });
const wordsOf = (l: Layout) => [...l.texts, ...l.keys];
const saidIn = (l: Layout) => wordsOf(l).map((t) => t.text);
/** Nothing that is said lies on anything else that is said, nor beyond the picture. */
function readable(l: Layout): void {
  const words = wordsOf(l);
  words.forEach((a, i) => {
    expect(a.box.left, a.text).toBeGreaterThanOrEqual(-0.5);
    expect(a.box.right, a.text).toBeLessThanOrEqual(l.width + 0.5);
    expect(a.box.bottom, a.text).toBeLessThanOrEqual(l.height + 0.5);
    for (const b of words.slice(i + 1))
      expect(overlap(inner(a.box), inner(b.box)), `${a.text} on ${b.text}`).toBe(false);
  });
}
const within = (outer: Box, b: Box) =>
  b.left >= outer.left && b.right <= outer.right && b.top >= outer.top && b.bottom <= outer.bottom;
/** What a layer's lines are in px, worked out here from the scales alone. */
function linesOf(layer: Layer, { x, y, plot }: Layout): Segment[] {
  if (layer.kind === "level") return [[plot.left, y(layer.y), plot.right, y(layer.y)]];
  if (layer.kind === "moment") return [[x(layer.x), plot.top, x(layer.x), plot.bottom]];
  if (layer.kind !== "curve") return [];
  return layer.points.slice(1).flatMap((p, i): Segment[] => {
    const before = layer.points[i];
    return p && before ? [[x(before[0]), y(before[1]), x(p[0]), y(p[1])]] : [];
  });
}

const place = fc.integer({ min: -20, max: 120 });
const tone = fc.constantFrom("ink" as const, "in" as const, "out" as const, "sorrel" as const);
const word = fc.constantFrom("Thin", "Thick section", "190 °C, 20 min", "from 112 every rub passed", "a", "1234.5 µm");
const layer: fc.Arbitrary<Layer> = fc.oneof(
  fc.record({ kind: fc.constant("level" as const), y: place, tone, label: word }),
  fc.record({
    kind: fc.constant("moment" as const),
    x: place,
    tone,
    label: word,
    flag: fc.boolean(),
    must: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant("curve" as const),
    tone,
    label: word,
    points: fc.array(fc.oneof(fc.constant(null), fc.tuple(place, place)), { maxLength: 12 }),
  }),
  fc.record({ kind: fc.constant("note" as const), x: place, y: place, text: word, tone }),
  fc.record({ kind: fc.constant("gap" as const), from: place, to: place, label: fc.constant("gap") }),
  fc.record({
    kind: fc.constant("marks" as const),
    marks: fc.array(fc.record({ x: place, y: place, tone }), { maxLength: 20 }),
  }),
);
const spec: fc.Arbitrary<Spec> = fc.record({
  x: fc.constant({
    domain: [0, 100] as const,
    ticks: minuteTicks(0, 6000).map((t) => ({ ...t, at: t.at / 60 })),
    title: "min",
  }),
  y: fc.constant(axisOf("temperature", [0, 100], "us")),
  layers: fc.array(layer, { maxLength: 14 }),
});

describe("words of a chart", () => {
  test("lie on no other words and inside the picture, whatever the chart holds and however narrow it is", () => {
    fc.assert(
      fc.property(spec, fc.integer({ min: 330, max: 860 }), fc.integer({ min: 200, max: 340 }), (s, width, height) => {
        // Only so many lines can be named beside a plot of so many px.
        fc.pre(s.layers.filter((l) => l.kind === "level" || l.kind === "curve").length * 14 < height - 90);
        readable(layoutOf(s, width, height));
      }),
      { numRuns: 300 },
    );
  });
  test("in the plot lie under no line and on no mark", () => {
    fc.assert(
      fc.property(spec, (s) => {
        const l = layoutOf(s, 860, 300);
        for (const t of l.texts.filter((t) => within(l.plot, t.box))) {
          const box = inner(t.box);
          for (const layer of s.layers) {
            for (const line of linesOf(layer, l)) expect(clipped(line, box), t.text).toBe(null);
            if (layer.kind === "marks")
              for (const m of layer.marks)
                expect(
                  overlap(box, { left: l.x(m.x) - 2, right: l.x(m.x) + 2, top: l.y(m.y) - 2, bottom: l.y(m.y) + 2 }),
                ).toBe(false);
          }
        }
      }),
      { numRuns: 300 },
    );
  });
  test("that found no place in the plot are said under it; a limit, a line and what must be named is always named", () => {
    const crowd: Layer[] = Array.from({ length: 40 }, (_, i) => ({
      kind: "curve",
      tone: "ink",
      points: [[0, i * 2.5] as const, [90, i * 2.5] as const],
    }));
    const l = layoutOf(
      {
        x: { domain: [0, 100], ticks: [] },
        y: { domain: [0, 100], ticks: [] },
        layers: [
          ...crowd,
          {
            kind: "curve",
            tone: "sorrel",
            dash: "4 3",
            label: "Air of the oven",
            points: [
              [0, 10],
              [50, 60],
            ],
          },
          { kind: "level", y: 50, tone: "out", label: "limit 50" },
          { kind: "moment", x: 30, tone: "ink", label: "now", must: true },
          { kind: "moment", x: 31, tone: "ink", label: "pull 21 min", must: true },
          { kind: "moment", x: 32, tone: "ink", label: "the door was opened", must: true },
        ],
      },
      400,
      200,
    );
    expect(l.keys.map((k) => k.text)).toEqual(["Air of the oven"]);
    expect(l.height).toBeGreaterThan(200);
    for (const text of ["limit 50", "now", "pull 21 min", "the door was opened"]) expect(saidIn(l)).toContain(text);
    readable(l);
  });
  test("of an event among many give way to the newer one, which keeps its name", () => {
    const l = layoutOf(
      {
        x: { domain: [0, 100], ticks: [] },
        y: { domain: [0, 1], ticks: [] },
        layers: Array.from({ length: 60 }, (_, i) => ({
          kind: "moment" as const,
          x: i,
          tone: "soft" as const,
          label: `addition ${i}`,
          flag: true,
        })),
      },
      400,
      200,
    );
    expect(saidIn(l)).toContain("addition 59");
    expect(saidIn(l).length).toBeLessThan(14);
    readable(l);
  });
  test("of an axis are left out evenly where they would touch, and the first and last are whole", () => {
    const ticks = Array.from({ length: 40 }, (_, i) => ({ at: i, label: `${i + 1} Nov` }));
    const l = layoutOf({ x: { domain: [0, 39], ticks }, y: { domain: [0, 1], ticks: [] }, layers: [] }, 400, 120);
    const days = saidIn(l).map((t) => Number.parseInt(t, 10));
    expect(days.length).toBeGreaterThan(3);
    expect(new Set(days.slice(1).map((d, i) => d - (days[i] as number))).size).toBe(1);
    readable(l);
  });
});

describe("lines of words beside a plot", () => {
  test("keep their order, a line apart, and move no more than they must", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 20, max: 280 }), { minLength: 1, maxLength: 12 }), (wanted) => {
        const got = spread(wanted, 0, 300);
        const order = wanted.map((w, i) => [w, got[i] as number] as const).sort((a, b) => a[0] - b[0] || a[1] - b[1]);
        for (const [i, [, at]] of order.entries()) {
          expect(at).toBeGreaterThanOrEqual(0);
          if (i > 0) expect(at - (order[i - 1]?.[1] ?? 0)).toBeGreaterThanOrEqual(14 - 1e-9);
        }
        const apart = [...wanted]
          .sort((a, b) => a - b)
          .every((w, i, all) => i === 0 || w - (all[i - 1] as number) >= 14);
        if (apart) for (const [i, at] of got.entries()) expect(at).toBeCloseTo(wanted[i] as number, 9);
      }),
    );
  });
  test("two at one height part by half a line each", () => {
    expect(spread([100, 100], 0, 300)).toEqual([93, 107]);
  });
  test("at the foot are pushed up, all of them", () => {
    expect(spread([298, 299, 300], 0, 300)).toEqual([272, 286, 300]);
  });
});

describe("a chart's parts", () => {
  test("a line is cut at the edges of a box, and is none where it misses it or is no line", () => {
    const box = { left: 0, right: 10, top: 0, bottom: 10 };
    expect(clipped([-10, 5, 20, 5], box)).toEqual([0, 5, 10, 5]);
    expect(clipped([2, 2, 4, 6], box)).toEqual([2, 2, 4, 6]);
    expect(clipped([-5, -1, 20, -1], box)).toBe(null);
    expect(clipped([-10, 5, 5, 20], box)).toBe(null);
    expect(clipped([0, Number.NEGATIVE_INFINITY, 5, 5], box)).toBe(null);
  });
  test("a domain holds its values with air, and is never without width", () => {
    expect(domainOf([5, null, 7, undefined])).toEqual([5 - 0.16, 7 + 0.16]);
    expect(domainOf([5, 5])).toEqual([4.92, 5.08]);
    expect(domainOf([])).toEqual([0, 1]);
  });
  test("ticks are round in the person's unit, at their place in the canonical one", () => {
    const us = axisOf("creep", [0, 25.4], "us");
    expect(us.title).toBe("in");
    expect(us.ticks.map((t) => t.label)).toEqual(["0", "0.2", "0.4", "0.6", "0.8", "1"]);
    for (const t of us.ticks) expect(t.at).toBeCloseTo(Number(t.label) * 25.4, 9);
    expect(axisOf("temperature", [0, 200], "us").ticks.map((t) => Math.round(t.at * 1.8 + 32))).toEqual([
      100, 200, 300,
    ]);
    expect(minuteTicks(0, 1800).map((t) => t.label)).toEqual(["0", "5", "10", "15", "20", "25", "30"]);
    expect(minuteTicks(90, 150).map((t) => t.label)).toEqual(["1.5", "2.0", "2.5"]);
  });
  test("a value that cannot be drawn breaks nothing", () => {
    const out = html(
      <Plot
        label="awkward"
        spec={{
          x: { domain: [0, 10], ticks: [] },
          y: { domain: [1, 10], log: true, ticks: [] },
          layers: [
            { kind: "curve", tone: "ink", label: "falls to nothing", points: [[0, 5], [1, 0], null, [3, 1e9]] },
            { kind: "level", y: 20, tone: "out", label: "beyond" },
          ],
        }}
      />,
    );
    expect(out).toContain("falls to nothing");
    expect(out).not.toContain("beyond");
  });
  test("without anything to read it is a picture; with values it is read by key, the newest first", () => {
    const bare: Spec = { x: { domain: [0, 1], ticks: [] }, y: { domain: [0, 1], ticks: [] }, layers: [] };
    expect(html(<Plot label="bare" spec={bare} />)).toMatch(/<svg[^>]*role="img"[^>]*aria-label="bare"/);
    const read = html(
      <Plot
        label="read"
        spec={bare}
        readings={[
          { x: 0, y: 0, says: "first" },
          { x: 1, y: 1, says: "last" },
        ]}
      />,
    );
    expect(read).toMatch(/role="slider"[^>]*aria-valuetext="last"/);
  });
});
