import { type Kysely, sql } from "kysely";
import {
  type BathForecast,
  type BathParameter,
  type BathWindow,
  bathParameters,
  cautiousForecast,
  judgeBathValue,
  type LimitSide,
  methodRepeats,
  movedBy,
} from "@/core/bath";
import { type TrendingChart, trendingChart } from "@/core/control-charts";
import type { Failure } from "@/core/result";
import { type VerdictResult, worstResult } from "@/core/verdict";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { type SetupItem, setupAt } from "../setup/setup-data";
import { additionsFor, type BathAddition } from "./additions";

export type BathPoint = {
  readonly recordId: string;
  readonly at: Date;
  readonly value: number;
  readonly by: string;
  readonly result: VerdictResult;
  readonly typed: string;
  readonly typedUnit: string;
};
export type BathEvent = {
  readonly recordId: string;
  readonly at: Date;
  readonly event: string;
  readonly product: string;
  readonly amountL: number | null;
};
export type BathSeries = {
  readonly parameter: BathParameter;
  readonly window: BathWindow;
  readonly points: readonly BathPoint[];
  /** Judged on what is left over from the trend since the last change; null with too few checks. */
  readonly chart: TrendingChart | null;
  /** Points out of their window: their cause is known, so lines and spread are taken without them. */
  readonly leftOut: number;
  /** Why nothing is judged against a trend. */
  readonly noChartWhy: Failure | null;
  readonly forecast:
    | (BathForecast & {
        readonly limit: number | null;
        readonly side: LimitSide | null;
        readonly meetsAt: Date;
        /** The line bent: it was taken through the last so many checks. */
        readonly lastChecks: number | null;
      })
    | null;
  /** The forecast as drawn: value and bound at the last point and at the fixed round. */
  readonly wedge: readonly { readonly at: Date; readonly value: number; readonly bound: number }[];
  readonly noForecastWhy: Failure | null;
  readonly nextCheckBy: Date | null;
  readonly nextCheckWhy: "forecast" | "round" | "reaction";
  /** What is to be done now, while its newest check is out; it stands until a good one closes it. */
  readonly reaction: { readonly what: string; readonly since: Date } | null;
};
export type BathFile = {
  readonly bath: SetupItem<"bath">;
  readonly series: readonly BathSeries[];
  readonly events: readonly BathEvent[];
  readonly result: VerdictResult;
  readonly nextCheckBy: Date | null;
  /** What would bring each value that is out back, worked out. */
  readonly additions: readonly BathAddition[];
};
/** Newest points judged and drawn; older ones are in the record. */
const POINTS_SHOWN = 96;
/** A line drawn further than this, h, says nothing any more. */
const FURTHEST_FORECAST_HOURS = 24 * 60;

/** A bath with its last weeks: points, individuals chart, run rules, forecast and the next check. Three queries; O(points). */
export async function loadBath(
  db: Kysely<Database>,
  code: string,
  at: Date,
  daysBack = 26,
  known?: ReadonlyMap<string, SetupItem<"bath">>,
): Promise<BathFile | null> {
  const baths = known ?? (await setupAt(db, "bath", at));
  const bath = [...baths.values()].find((b) => b.code.toLowerCase() === code.toLowerCase());
  if (!bath) return null;
  const since = new Date(at.getTime() - daysBack * 86_400_000);
  const checks = sql<{
    id: string;
    happened_at: Date;
    by_user: string;
    parameter: BathParameter;
    value: number;
    typed: string;
    typed_unit: string;
  }>`
    select r.id, r.happened_at, ${personName("r.by_user")} as by_user, k.parameter, k.value, k.typed, k.typed_unit from record r join bath_check k on k.record_id = r.id
    where r.bath_id = ${bath.id} and r.kind = 'bath-check' and r.happened_at >= ${since} and r.happened_at <= ${at} and ${stands("r.id")} order by r.happened_at`.execute(
    db,
  );
  const changes = sql<BathEvent>`
    select r.id as "recordId", r.happened_at as at, e.event, coalesce(e.product, '') as product, e.amount_l as "amountL" from record r join bath_event e on e.record_id = r.id
    where r.bath_id = ${bath.id} and r.kind = 'bath-event' and r.happened_at >= ${since} and r.happened_at <= ${at} and ${stands("r.id")} order by r.happened_at`.execute(
    db,
  );
  const [{ rows }, events] = await Promise.all([checks, changes]);
  const series = bathParameters.flatMap((parameter) => {
    const window = bath.data.windows[parameter];
    if (!window) return [];
    const points = rows
      .filter((row) => row.parameter === parameter)
      .slice(-POINTS_SHOWN)
      .map(
        (row): BathPoint => ({
          recordId: row.id,
          at: row.happened_at,
          value: row.value,
          by: row.by_user,
          result: judgeBathValue(row.value, window),
          typed: row.typed,
          typedUnit: row.typed_unit,
        }),
      );
    // An addition of one thing is no change of another: acid does not begin the inhibitor's line anew.
    const own = events.rows.filter((e) => movedBy(bath.data, e).includes(parameter));
    const judged = judgeSeries(
      parameter,
      window,
      points,
      own,
      window.roundHours ?? bath.data.roundHours,
      methodRepeats(bath.data, parameter),
    );
    return withReaction(judged, window.reaction);
  });
  const last = series.map((s) => s.points[s.points.length - 1]?.result ?? "unknown");
  const nexts = series.flatMap((s) => (s.nextCheckBy ? [s.nextCheckBy.getTime()] : []));
  return {
    bath,
    series,
    events: events.rows,
    result: worstResult(last),
    nextCheckBy: nexts.length ? new Date(Math.min(...nexts)) : null,
    additions: await additionsFor(db, bath, series, at),
  };
}

/** Out of its window a bath is checked again as its reaction says: a forecast of a limit it has passed says nothing. */
function withReaction(
  series: BathSeries,
  reaction: { readonly what: string; readonly recheckMinutes: number } | null,
): BathSeries {
  const last = series.points.at(-1);
  if (!reaction || last?.result !== "out") return series;
  const firstOut = series.points.findLastIndex((p) => p.result !== "out") + 1;
  const again = new Date(last.at.getTime() + reaction.recheckMinutes * 60_000);
  return {
    ...series,
    reaction: { what: reaction.what, since: series.points[firstOut]?.at ?? last.at },
    nextCheckBy: again,
    nextCheckWhy: "reaction",
  };
}

function judgeSeries(
  parameter: BathParameter,
  window: BathWindow,
  points: readonly BathPoint[],
  events: readonly BathEvent[],
  roundHours: number,
  /** Standard deviation with which the method repeats, in the value's own unit. */
  repeats: number,
): BathSeries {
  const values = points.map((p) => p.value);
  const leftOut = points.map((p) => p.result === "out");
  const sinceFirst = points.map((p) => (p.at.getTime() - (points[0] as BathPoint).at.getTime()) / 3_600_000);
  const breaks = points.flatMap((p, i) =>
    i > 0 && events.some((e) => e.at > (points[i - 1] as BathPoint).at && e.at <= p.at) ? [i] : [],
  );
  const chart = trendingChart(sinceFirst, values, breaks, leftOut);
  const last = points[points.length - 1];
  const base: BathSeries = {
    parameter,
    window,
    points,
    chart: chart.ok ? chart.value : null,
    leftOut: leftOut.filter(Boolean).length,
    noChartWhy: chart.ok ? null : chart.error,
    forecast: null,
    wedge: [],
    noForecastWhy: null,
    nextCheckBy: last ? new Date(last.at.getTime() + roundHours * 3_600_000) : null,
    nextCheckWhy: "round",
    reaction: null,
  };
  if (!last) return base;
  const since = points.slice(breaks[breaks.length - 1] ?? 0);
  const hours = since.map((p) => (p.at.getTime() - (since[0] as BathPoint).at.getTime()) / 3_600_000);
  const sinceValues = since.map((p) => p.value);
  const sides = (
    [
      ["upper", window.upper],
      ["lower", window.lower],
    ] as const
  ).filter((s): s is readonly ["upper" | "lower", number] => s[1] !== null);
  let why: Failure | null = null;
  for (const [side, limit] of sides) {
    const found = cautiousForecast(hours, sinceValues, limit, side, repeats);
    if (!found.ok) {
      why = found.error;
      continue;
    }
    if (found.value.forecast.kind === "no-forecast") continue;
    const origin = (since[0] as BathPoint).at.getTime();
    const moment = (hour: number) => new Date(origin + hour * 3_600_000);
    const lastHour = found.value.trend.lastHour;
    const round = lastHour + roundHours;
    const checkBy = Math.min(round, found.value.forecast.checkByHour);
    const wedge = [lastHour, lastHour + (round - lastHour) / 2, round].map((hour) => ({
      at: moment(hour),
      ...found.value.at(hour),
    }));
    return {
      ...base,
      forecast: {
        ...found.value.forecast,
        limit,
        side,
        meetsAt: moment(Math.min(found.value.forecast.meetsAtHour, lastHour + FURTHEST_FORECAST_HOURS)),
        lastChecks: found.value.cautions.lastChecks,
      },
      wedge,
      nextCheckBy: moment(checkBy),
      nextCheckWhy: checkBy < round ? "forecast" : "round",
    };
  }
  return { ...base, noForecastWhy: why };
}
