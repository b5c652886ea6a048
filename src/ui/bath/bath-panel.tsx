import { readinessResult } from "@/core/bath";
import type { UnitSystem } from "@/core/units";
import type { BathFile, BathSeries } from "@/server/baths/load-bath";
import { BathChart } from "../charts/bath-chart";
import { clock, dayMonth, plainly, span, when } from "../format";
import { Verdict } from "../marks/verdict";
import { bathValue, inUnits, parameterDigits, parameterName } from "../words/baths";
import { failureText } from "../words/failures";
import { runRuleWords } from "../words/reasons";

export function SeriesChart({
  series,
  file,
  now,
  timeZone,
  units,
  width,
}: {
  series: BathSeries;
  file: BathFile;
  now: Date;
  timeZone: string;
  units: UnitSystem;
  width?: number;
}) {
  const own = (value: number) => inUnits(series.parameter, value, units);
  const ownOrNull = (value: number | null) => (value === null ? null : own(value));
  // Only what the chart says now is marked: rules met before the last addition have been answered by it.
  const lastChange = file.events.at(-1)?.at.getTime() ?? Number.NEGATIVE_INFINITY;
  const met = new Set(Object.values(series.chart?.runRules ?? {}).flat());
  const marked = new Set([...met].filter((i) => (series.points[i]?.at.getTime() ?? 0) > lastChange));
  const first = series.points[0]?.at.getTime() ?? 0;
  const last = series.points.at(-1)?.at.getTime() ?? 0;
  const step = Math.max(1, Math.round((last - first) / 86_400_000 / 6)) * 86_400_000;
  const days: { atMs: number; label: string }[] = [];
  for (let ms = Math.ceil(first / 86_400_000) * 86_400_000; ms <= last; ms += step)
    days.push({ atMs: ms, label: dayMonth(new Date(ms), timeZone) });
  return (
    <BathChart
      name={`${file.bath.data.name}, ${parameterName[series.parameter]}`}
      digits={parameterDigits(series.parameter)}
      window={{
        lower: ownOrNull(series.window.lower),
        upper: ownOrNull(series.window.upper),
        watchLower: ownOrNull(series.window.watchLower ?? null),
        watchUpper: ownOrNull(series.window.watchUpper ?? null),
      }}
      days={days}
      {...(width ? { width } : {})}
      points={series.points.map((p, i) => ({
        atMs: p.at.getTime(),
        value: own(p.value),
        result: p.result,
        marked: marked.has(i),
        label: `${when(p.at, now, timeZone)}  ${bathValue(series.parameter, p.value, units)}`,
      }))}
      events={file.events.map((e) => ({
        atMs: e.at.getTime(),
        label: `${e.event} ${e.amountL === null ? "" : `${plainly(e.amountL, "volume", units)} `}${e.product}, ${dayMonth(e.at, timeZone)}`,
      }))}
      control={
        series.chart?.lines.map((l) => ({
          fromMs: series.points[l.fromIndex]?.at.getTime() ?? first,
          toMs: series.points[l.toIndex]?.at.getTime() ?? last,
          lower: [own(l.from - (series.chart?.half ?? 0)), own(l.to - (series.chart?.half ?? 0))],
          upper: [own(l.from + (series.chart?.half ?? 0)), own(l.to + (series.chart?.half ?? 0))],
        })) ?? []
      }
      wedge={series.wedge.map((w) => ({ atMs: w.at.getTime(), value: own(w.value), bound: own(w.bound) }))}
      checkBy={
        series.nextCheckBy
          ? {
              atMs: series.nextCheckBy.getTime(),
              label: `${series.nextCheckBy < now ? "was due" : "check by"} ${when(series.nextCheckBy, now, timeZone)}`,
            }
          : null
      }
    />
  );
}

/** When the trend meets its limit, counted from the last check. */
function meets(at: Date, last: Date, timeZone: string): string {
  const hours = (at.getTime() - last.getTime()) / 3_600_000;
  if (hours <= 0) return "already now";
  return hours < 48 ? `${span(at.getTime() - last.getTime())} after the last check` : `about ${dayMonth(at, timeZone)}`;
}

const MOST_TIMES_TOLD = 20;
/** A trend that is none of the usual ones between changes. */
function slopeWords({ slopePerHour, usualPerHour }: { slopePerHour: number; usualPerHour: number }): string {
  const way = slopePerHour > 0 ? "rises" : "falls";
  if (slopePerHour * usualPerHour < 0) return `It ${way} since the last change, where it usually does the opposite.`;
  const times = Math.abs(slopePerHour / usualPerHour);
  // Told as a factor while it can be: of what usually hardly moves it would be a figure without sense.
  if (!(times <= MOST_TIMES_TOLD)) return `It ${way} since the last change, where it usually hardly moves.`;
  return `It ${way} ${times.toFixed(times < 0.1 ? 2 : 1)} times as fast since the last change as it usually does.`;
}

/** What the line of a series says in words: run rules met, forecast, or why there is none. */
export function SeriesWords({
  series,
  now,
  timeZone,
  units,
}: {
  series: BathSeries;
  now: Date;
  timeZone: string;
  units: UnitSystem;
}) {
  const overdue = checkOverdue(series, now);
  const last = series.points.length - 1;
  const met = Object.entries(series.chart?.runRules ?? {})
    .filter(([, at]) => at?.includes(last))
    .map(([rule]) => runRuleWords[rule]);
  const forecast = series.forecast;
  return (
    <p className="small soft mt-1">
      {series.leftOut > 0 &&
        series.chart &&
        `Limits without the ${series.leftOut === 1 ? "check" : `${series.leftOut} checks`} out of the window. `}
      {series.noChartWhy && last >= 0 && `Not judged against its own trend: ${failureText(series.noChartWhy)} `}
      {met.length > 0 && <b className="text-ink">Beside its trend: {met.join("; ")}. </b>}
      {series.chart?.unusualSlope && <b className="text-ink">{slopeWords(series.chart.unusualSlope)} </b>}
      {forecast?.kind === "forecast" && forecast.limit !== null
        ? `At this pace it meets ${bathValue(series.parameter, forecast.limit, units)}, ${meets(forecast.meetsAt, series.points.at(-1)?.at ?? forecast.meetsAt, timeZone)}${forecast.lastChecks === null ? "" : `, by its last ${forecast.lastChecks} checks: before them it moved otherwise`}. `
        : series.noForecastWhy
          ? `No forecast: ${failureText(series.noForecastWhy)} `
          : "The trend points away from the limits. "}
      {overdue ? "A check was due" : "Next check"}{" "}
      {series.nextCheckBy ? when(series.nextCheckBy, now, timeZone) : "at the round"} by{" "}
      {
        {
          forecast: "the 95 % bound of the forecast",
          round: "the fixed round",
          reaction: "what is asked for while it is out",
        }[series.nextCheckWhy]
      }
      .
    </p>
  );
}

/** The newest figure of a value; past the check it was due it is said of when it was read. */
export function FigureVerdict({ series, now, timeZone }: { series: BathSeries; now: Date; timeZone: string }) {
  const last = series.points.at(-1);
  if (!last) return <Verdict result="unknown">never checked</Verdict>;
  const word = last.result === "watch" ? "near its limit" : last.result === "in" ? "in" : "out";
  return checkOverdue(series, now) ? (
    <>
      <Verdict result={last.result === "in" ? "watch" : last.result}>was {word}</Verdict>{" "}
      <span className="small soft">read {when(last.at, now, timeZone)};</span>
    </>
  ) : (
    <Verdict result={last.result}>{word}</Verdict>
  );
}

/** Whether a bath, or a value of it, is past the check it was due: what is known of it is of before. */
export const checkOverdue = ({ nextCheckBy }: { readonly nextCheckBy: Date | null }, now: Date): boolean =>
  nextCheckBy !== null && nextCheckBy < now;

/** How ready the wash is; with a check overdue, how ready it was when it was looked at. */
export function ReadyNow({ index, overdue }: { index: number | null; overdue: number }) {
  const result = readinessResult(index);
  if (index === null) return <Verdict result={result}>Readiness not known</Verdict>;
  if (overdue === 0) return <Verdict result={result}>Ready {index} of 100</Verdict>;
  return (
    <Verdict result={result === "in" ? "watch" : result}>
      Was {index} of 100; {overdue === 1 ? "a check is" : `${overdue} checks are`} overdue
    </Verdict>
  );
}

export function BathVerdict({ file, now, timeZone }: { file: BathFile; now: Date; timeZone: string }) {
  const overdue = checkOverdue(file, now);
  const word =
    file.result === "out"
      ? "Out of window"
      : file.result === "unknown"
        ? "Not known"
        : overdue
          ? "Check overdue"
          : file.result === "watch"
            ? "Near its limit"
            : "In window";
  return (
    <Verdict result={file.result === "in" && overdue ? "watch" : file.result}>
      {word}
      {file.nextCheckBy && !overdue ? `, check by ${clock(file.nextCheckBy, timeZone)}` : ""}
    </Verdict>
  );
}
