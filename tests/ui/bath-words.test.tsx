import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, test } from "vitest";
import type { TrendingChart } from "@/core/control-charts";
import type { BathSeries } from "@/server/baths/load-bath";
import { FigureVerdict, SeriesWords } from "@/ui/bath/bath-panel";

const at = (hour: number) => new Date(Date.UTC(2026, 10, 28, hour));
const series = (over: Partial<BathSeries>): BathSeries => ({
  parameter: "ph",
  window: { lower: 4.8, upper: 5.6 },
  points: [{ recordId: "r", at: at(8), value: 5.2, result: "in", typed: "5.2" } as BathSeries["points"][number]],
  chart: null,
  leftOut: 0,
  noChartWhy: null,
  forecast: null,
  wedge: [],
  noForecastWhy: null,
  nextCheckBy: at(12),
  nextCheckWhy: "round",
  reaction: null,
  ...over,
});
const text = (markup: string) =>
  markup
    .replace(/<[^>]+>/g, " ")
    .replace(/\s+/g, " ")
    .trim();

describe("a figure of a bath", () => {
  const figure = (over: Partial<BathSeries>, hour: number) =>
    renderToStaticMarkup(<FigureVerdict series={series(over)} now={at(hour)} timeZone="UTC" />);
  test("is in while its check is not due, at the very moment too, and was in from then on", () => {
    expect(text(figure({}, 12))).toMatch(/^in$/);
    expect(text(figure({}, 13))).toContain("was in read 08:00;");
    expect(figure({}, 12)).toContain("text-in");
    expect(figure({}, 13)).not.toContain("text-in");
  });
  test("stays out, and near its limit, with the hour it was read", () => {
    const point = series({}).points[0] as BathSeries["points"][number];
    expect(text(figure({ points: [{ ...point, result: "out" }] }, 13))).toContain("was out read 08:00;");
    expect(text(figure({ points: [{ ...point, result: "watch" }] }, 9))).toContain("near its limit");
    expect(text(figure({ points: [] }, 9))).toContain("never checked");
  });
});

describe("the line of a bath in words", () => {
  const words = (over: Partial<BathSeries>) =>
    text(renderToStaticMarkup(<SeriesWords series={series(over)} now={at(9)} timeZone="UTC" units="metric" />));
  const sloping = (slopePerHour: number, usualPerHour: number) =>
    words({ chart: { unusualSlope: { slopePerHour, usualPerHour }, runRules: {} } as unknown as TrendingChart });
  test("a slope that is none of the usual is told by how many times", () => {
    expect(sloping(0.09, 0.05)).toContain("rises 1.8 times as fast since the last change as it usually does");
    expect(sloping(-0.01, -0.05)).toContain("falls 0.2 times as fast");
    expect(sloping(0.001, 0.05)).toContain("0.02 times as fast");
    expect(sloping(0.09, -0.05)).toContain("where it usually does the opposite");
    expect(sloping(0.09, 0.0001)).toContain("where it usually hardly moves");
    expect(sloping(0.09, 0)).toContain("where it usually hardly moves");
  });
  test("what is not judged against its trend says why", () => {
    expect(words({ noChartWhy: { kind: "too-few-values", got: 5, need: 8 } })).toContain(
      "Not judged against its own trend: 5 values; 8 are needed.",
    );
    expect(words({ points: [], noChartWhy: { kind: "too-few-values", got: 0, need: 8 } })).not.toContain("Not judged");
  });
});
