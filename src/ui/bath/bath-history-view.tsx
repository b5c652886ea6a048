"use client";
import { scaleLinear } from "d3";
import { useCallback, useEffect, useMemo, useState } from "react";
import { type BathParameter, bathParameterUnits } from "@/core/bath";
import { ewmaChart, firstFrom, individualsChart, xbarRChart } from "@/core/control-charts";
import { quantileType7 } from "@/core/statistics";
import type { BathHistory } from "@/server/baths/bath-history";
import { ControlPanels } from "../charts/control-panels";
import { Plot } from "../charts/plot/plot";
import { type Axis, domainOf, ticksOf } from "../charts/plot/spec";
import { Tick } from "../fields/tick";
import { countOf, dateAndTime, dayMonth } from "../format";
import { usePreferences } from "../preferences-context";
import { bathValue, inUnits, parameterDigits, parameterLabel, parameterName, parameterUnit } from "../words/baths";
import { failureText } from "../words/failures";
import { HistoryChart } from "./later";

type State<T> = { readonly data: T } | { readonly problem: string } | null;

/** A bath's checks of one value, fetched once. */
function useHistory(bath: string, parameter: BathParameter | null): State<BathHistory> {
  const [state, setState] = useState<State<BathHistory>>(null);
  useEffect(() => {
    if (!parameter) return;
    const gone = new AbortController();
    fetch(`/api/baths/${bath}/history?parameter=${parameter}`, { signal: gone.signal })
      .then(async (r) => setState(r.ok ? { data: await r.json() } : { problem: failureText(await r.json()) }))
      .catch((e: Error) => {
        if (e.name !== "AbortError") setState({ problem: "The checks could not be fetched. Reload the page." });
      });
    return () => gone.abort();
  }, [bath, parameter]);
  return state;
}

/** Means and ranges a day over more days than this say nothing at this width. */
const MOST_DAYS = 180;
const DAY = 86_400_000;

/** The whole record of a bath's value: as checked, smoothed, by days, and against another value. */
export function BathHistoryView({
  bath,
  name,
  parameter,
  against,
  timeZone,
}: {
  bath: string;
  name: string;
  parameter: BathParameter;
  against: BathParameter | null;
  timeZone: string;
}) {
  const { units } = usePreferences();
  const found = useHistory(bath, parameter);
  const other = useHistory(bath, against);
  const [smoothed, setSmoothed] = useState(false);
  const [byDays, setByDays] = useState(false);
  const [seen, setSeen] = useState<readonly [number, number] | null>(null);
  const look = useCallback((from: number, to: number) => setSeen([from, to]), []);
  const data = found && "data" in found ? found.data : null;
  const own = useMemo(() => {
    if (!data) return null;
    const to = (v: number) => inUnits(parameter, v, units);
    const orNull = (v: number | null) => (v === null ? null : to(v));
    return {
      values: data.values.map(to),
      windows: data.windows.map((w) => ({ ...w, lower: orNull(w.lower), upper: orNull(w.upper) })),
    };
  }, [data, parameter, units]);
  const smooth = useMemo(() => {
    if (!own || !smoothed) return null;
    const now = own.windows.at(-1);
    const leftOut = own.values.map(
      (v) => (now?.lower ?? Number.NEGATIVE_INFINITY) > v || v > (now?.upper ?? Number.POSITIVE_INFINITY),
    );
    const chart = individualsChart(own.values, leftOut);
    if (!chart.ok) return null;
    const ewma = ewmaChart(own.values, chart.value);
    return ewma.ok
      ? { values: ewma.value.values, lower: ewma.value.lower.at(-1) ?? 0, upper: ewma.value.upper.at(-1) ?? 0 }
      : null;
  }, [own, smoothed]);
  const drawn = useMemo(
    () =>
      data && own ? { atMs: data.atMs, values: own.values, smooth, windows: own.windows, events: data.events } : null,
    [data, own, smooth],
  );
  const day = useCallback((ms: number) => dayMonth(new Date(ms), timeZone), [timeZone]);
  const says = useCallback(
    (ms: number, value: number) =>
      `${dateAndTime(new Date(ms), timeZone)}: ${value.toFixed(parameterDigits(parameter))} ${parameterUnit(parameter, units)}`.trim(),
    [timeZone, parameter, units],
  );
  if (!found)
    return (
      <p className="mt-6" aria-live="polite">
        Fetching the checks …
      </p>
    );
  if ("problem" in found || !own || !data || !drawn)
    return (
      <p role="alert" className="mt-6 text-out">
        {"problem" in found ? found.problem : ""}
      </p>
    );
  if (data.atMs.length === 0) return <p className="mt-6">Never checked. The first round puts it here.</p>;
  return (
    <>
      <p className="mt-3 mb-1 flex flex-wrap items-center gap-x-5">
        <b className="fig">
          {data.values.length === 1 ? "1 check" : `${data.values.length.toLocaleString("en-GB")} checks`}
        </b>
        {data.older > 0 && <span className="soft">{data.older.toLocaleString("en-GB")} older ones are on record</span>}
        <label className="flex min-h-11 items-center gap-2">
          <Tick checked={smoothed} onChange={setSmoothed} />
          smoothed, each check a fifth of it
        </label>
        <label className="flex min-h-11 items-center gap-2">
          <Tick checked={byDays} onChange={setByDays} />
          by days: means and ranges
        </label>
      </p>
      <HistoryChart
        name={`${name}, ${parameterLabel(parameter, units)}`}
        data={drawn}
        digits={parameterDigits(parameter)}
        day={day}
        says={says}
        {...(byDays ? { seen: look } : {})}
      />
      {own.windows.length > 1 && (
        <p className="small soft mt-1">
          {own.windows.slice(1).map((w) => (
            <span key={w.fromMs} className="block">
              Window changed on {day(w.fromMs)}: {w.reason}
            </span>
          ))}
        </p>
      )}
      {byDays && seen && (
        <DayChart
          atMs={data.atMs}
          values={own.values}
          from={seen[0]}
          to={seen[1]}
          parameter={parameter}
          window={own.windows.at(-1)}
          day={day}
        />
      )}
      {against && other && "data" in other && (
        <Against x={{ parameter, history: data }} y={{ parameter: against, history: other.data }} day={day} />
      )}
    </>
  );
}

/** The days seen, each as a subgroup: those with the usual number of checks. */
function daysOf(atMs: readonly number[], values: readonly number[], from: number, to: number) {
  const byDay = new Map<number, number[]>();
  for (let i = firstFrom(atMs, from); i < firstFrom(atMs, to); i++) {
    const day = Math.floor((atMs[i] as number) / DAY);
    const mine = byDay.get(day) ?? [];
    mine.push(values[i] as number);
    byDay.set(day, mine);
  }
  const counts = new Map<number, number>();
  for (const mine of byDay.values()) counts.set(mine.length, (counts.get(mine.length) ?? 0) + 1);
  const usual = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
  const kept = [...byDay].filter(([, mine]) => mine.length === usual);
  return { days: kept, usual, leftOut: byDay.size - kept.length };
}

function DayChart({
  atMs,
  values,
  from,
  to,
  parameter,
  window,
  day,
}: {
  window: { readonly lower: number | null; readonly upper: number | null } | undefined;
  atMs: readonly number[];
  values: readonly number[];
  from: number;
  to: number;
  parameter: BathParameter;
  day: (ms: number) => string;
}) {
  const { days, usual, leftOut } = daysOf(atMs, values, from, to);
  if (days.length > MOST_DAYS)
    return <p className="soft">Look closer: {days.length} days are too many to tell apart.</p>;
  // Days with a check out of the window have a known cause: they are drawn, and the limits are taken without them.
  const kept = days.filter(([, mine]) => mine.every((v) => (window?.lower ?? v) <= v && v <= (window?.upper ?? v)));
  const all = xbarRChart(days.map(([, mine]) => mine));
  const chart = xbarRChart((kept.length >= 2 ? kept : days).map(([, mine]) => mine));
  if (!chart.ok || !all.ok)
    return (
      <p className="soft">
        {usual < 2
          ? "One check a day has no range: see the checks themselves."
          : failureText(chart.ok ? { kind: "too-few-values", got: days.length, need: 2 } : chart.error)}
      </p>
    );
  const { means, spreads } = all.value;
  const { centre, lower, upper, meanSpread, spreadUpper, spreadLower } = chart.value;
  const name = (i: number) => day((days[i]?.[0] ?? 0) * DAY);
  return (
    <div className="mt-4">
      <h2>
        By days, {countOf(usual, "check")} each{leftOut > 0 ? `; ${leftOut} with another number left out` : ""}
        {kept.length >= 2 && kept.length < days.length
          ? `; limits without the ${days.length - kept.length} out of the window`
          : ""}
      </h2>
      <ControlPanels
        panels={[
          { title: "Means by days", values: means, limits: [lower, centre, upper] },
          { title: "Ranges by days", values: spreads, limits: [spreadLower, meanSpread, spreadUpper] },
        ]}
        format={(v) => v.toFixed(parameterDigits(parameter) + 1)}
        names={days.map((_, i) => name(i))}
        ends={[name(0), name(days.length - 1)]}
      />
    </div>
  );
}

/** Newest pairs drawn. */
const MOST_PAIRS = 1500;

/** Two values of one bath against each other, check by check, with their windows and their ratio. */
function Against({
  x,
  y,
  day,
}: {
  x: { parameter: BathParameter; history: BathHistory };
  y: { parameter: BathParameter; history: BathHistory };
  day: (ms: number) => string;
}) {
  const { units } = usePreferences();
  const beside = new Map(y.history.atMs.map((ms, i) => [ms, y.history.values[i] as number]));
  const pairs = x.history.atMs
    .flatMap((ms, i) => (beside.has(ms) ? [{ ms, x: x.history.values[i] as number, y: beside.get(ms) as number }] : []))
    .slice(-MOST_PAIRS);
  const last = pairs.at(-1);
  if (!last) return <p className="soft mt-4">The two were never taken in one round.</p>;
  const windowOf = (h: BathHistory) => h.windows.at(-1) ?? { lower: null, upper: null };
  const [wx, wy] = [windowOf(x.history), windowOf(y.history)];
  const axis = (parameter: BathParameter, values: readonly number[], w: typeof wx): Axis => {
    const [low, high] = domainOf([...values, w.lower, w.upper]);
    const own = scaleLinear([inUnits(parameter, low, units), inUnits(parameter, high, units)], [low, high]);
    const ticks = ticksOf(own.ticks(5), (v) => v.toFixed(parameterDigits(parameter)));
    return {
      domain: [low, high],
      ticks: ticks.map((t) => ({ ...t, at: own(t.at) })),
      title: parameterLabel(parameter, units),
    };
  };
  const ratios = pairs.flatMap((p) => (p.x > 0 ? [p.y / p.x] : [])).sort((a, b) => a - b);
  return (
    <div className="mt-5">
      <h2>
        {parameterName[y.parameter]} against {parameterName[x.parameter]}, {pairs.length} rounds
      </h2>
      <p className="m-0">
        Last: <b className="fig">{bathValue(x.parameter, last.x, units)}</b> and{" "}
        <b className="fig">{bathValue(y.parameter, last.y, units)}</b> on {day(last.ms)}
        {bathParameterUnits[x.parameter] === bathParameterUnits[y.parameter] && ratios.length > 0 && last.x > 0 && (
          <>
            , ratio <b className="fig">{(last.y / last.x).toFixed(2)}</b>{" "}
            <span className="soft">
              (usually {quantileType7(ratios, 0.05).toFixed(2)} to {quantileType7(ratios, 0.95).toFixed(2)})
            </span>
          </>
        )}
      </p>
      <Plot
        label={`${parameterName[y.parameter]} against ${parameterName[x.parameter]}`}
        width={560}
        height={340}
        scatter
        spec={{
          x: axis(
            x.parameter,
            pairs.map((p) => p.x),
            wx,
          ),
          y: axis(
            y.parameter,
            pairs.map((p) => p.y),
            wy,
          ),
          layers: [
            { kind: "band", x: [wx.lower, wx.upper], y: [wy.lower, wy.upper] },
            {
              kind: "marks",
              marks: pairs.map((p, i) => ({
                x: p.x,
                y: p.y,
                ...(i === pairs.length - 1 ? { tone: "sorrel", r: 6 } : { tone: "soft", r: 2.2, opacity: 0.5 }),
              })),
            },
          ],
        }}
        readings={pairs.map((p) => ({
          x: p.x,
          y: p.y,
          says: `${day(p.ms)}: ${bathValue(x.parameter, p.x, units)}, ${bathValue(y.parameter, p.y, units)}`,
        }))}
      />
    </div>
  );
}
