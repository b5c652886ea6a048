import { type Kysely, sql } from "kysely";
import { fitTrend } from "@/core/bath";
import { type ConditionQuantity, dewPointC, hoursOfMargin, USUAL_FALL_C_PER_HOUR } from "@/core/preparation";
import type { EvidenceGrade } from "@/core/verdict";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import { POWDER_STORE } from "../coat/powder-store";

export type AirReading = {
  readonly quantity: ConditionQuantity;
  readonly value: number;
  readonly unit: string;
  readonly place: string;
  readonly at: Date;
  readonly by: string;
};
export type Air = {
  readonly readings: readonly AirReading[];
  /** From the newest air temperature and humidity; null where either is missing. */
  readonly dewPointC: number | null;
  /** Metal over dew point, °C; null without a metal temperature. */
  readonly marginC: number | null;
  /** How long the margin lasts as the metal cools with the hall; null without a metal temperature, or where it does not cool. */
  readonly lasts: { readonly hours: number; readonly fallCPerHour: number; readonly grade: EvidenceGrade } | null;
};

/** Readings older than this say nothing about the air now. */
export const AIR_STALE_HOURS = 12;

/** The newest reading of each quantity before a moment, half a day back at most. One walk down the index on kind and time. */
export async function airBefore(db: Kysely<Database>, at: Date, leastMarginC: number | null = null): Promise<Air> {
  const since = new Date(at.getTime() - AIR_STALE_HOURS * 3_600_000);
  const { rows } = await sql<AirReading>`
    select distinct on (c.quantity) c.quantity, c.value, c.unit, c.place, r.happened_at as at, ${personName("r.by_user")} as by
    from record r join condition c on c.record_id = r.id
    where r.kind = 'condition' and r.happened_at <= ${at} and r.happened_at > ${since} and c.place <> ${POWDER_STORE}
      and ${stands("r.id")}
    order by c.quantity, r.happened_at desc, r.id desc`.execute(db);
  const of = (quantity: ConditionQuantity) => rows.find((r) => r.quantity === quantity)?.value ?? null;
  const [air, humidity, metal] = [of("air-temperature"), of("humidity"), of("metal-temperature")];
  const dew = air !== null && humidity !== null ? dewPointC({ airC: air, relativeHumidityPercent: humidity }) : null;
  const dewC = dew?.ok ? dew.value : null;
  const marginC = dewC !== null && metal !== null ? metal - dewC : null;
  if (marginC === null || metal === null || dewC === null || leastMarginC === null)
    return { readings: rows, dewPointC: dewC, marginC, lasts: null };
  const fall = await fallOfAir(db, at);
  const fallCPerHour = fall ?? USUAL_FALL_C_PER_HOUR;
  const hours = hoursOfMargin({ metalC: metal, dewPointC: dewC, leastMarginC, fallCPerHour });
  return {
    readings: rows,
    dewPointC: dewC,
    marginC,
    lasts:
      hours.ok && hours.value !== null
        ? { hours: hours.value, fallCPerHour, grade: fall === null ? "assumed" : "measured" }
        : null,
  };
}

/** Readings that tell how the hall cools, and how far back they may lie, h. */
const FALL_READINGS = 3;
const FALL_HOURS = 6;

/** How fast the air falls, °C an hour, by a line through its last readings; null with under three of them. One query on (kind, time). */
async function fallOfAir(db: Kysely<Database>, at: Date): Promise<number | null> {
  const since = new Date(at.getTime() - FALL_HOURS * 3_600_000);
  const { rows } = await sql<{ value: number; at: Date }>`
    select c.value, r.happened_at as at from record r join condition c on c.record_id = r.id
    where r.kind = 'condition' and c.quantity = 'air-temperature' and c.place <> ${POWDER_STORE} and r.happened_at <= ${at} and r.happened_at > ${since}
      and ${stands("r.id")} order by r.happened_at`.execute(db);
  if (rows.length < FALL_READINGS) return null;
  const first = rows[0]?.at.getTime() ?? 0;
  const trend = fitTrend(
    rows.map((r) => (r.at.getTime() - first) / 3_600_000),
    rows.map((r) => r.value),
  );
  return trend.ok ? -trend.value.slopePerHour : null;
}
