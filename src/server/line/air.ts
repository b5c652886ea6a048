import { type Kysely, sql } from "kysely";
import { type ConditionQuantity, dewPointC } from "@/core/preparation";
import type { Database } from "@/db/schema";

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
};

/** Readings older than this say nothing about the air now. */
export const AIR_STALE_HOURS = 12;

/** The newest reading of each quantity before a moment, half a day back at most. One walk down the index on kind and time. */
export async function airBefore(db: Kysely<Database>, at: Date): Promise<Air> {
  const since = new Date(at.getTime() - AIR_STALE_HOURS * 3_600_000);
  const { rows } = await sql<AirReading>`
    select distinct on (c.quantity) c.quantity, c.value, c.unit, c.place, r.happened_at as at, r.by_user as by
    from record r join condition c on c.record_id = r.id
    where r.kind = 'condition' and r.happened_at <= ${at} and r.happened_at > ${since}
      and not exists (select 1 from record s where s.supersedes = r.id)
    order by c.quantity, r.happened_at desc, r.id desc`.execute(db);
  const of = (quantity: ConditionQuantity) => rows.find((r) => r.quantity === quantity)?.value ?? null;
  const [air, humidity, metal] = [of("air-temperature"), of("humidity"), of("metal-temperature")];
  const dew = air !== null && humidity !== null ? dewPointC({ airC: air, relativeHumidityPercent: humidity }) : null;
  const dewC = dew?.ok ? dew.value : null;
  return { readings: rows, dewPointC: dewC, marginC: dewC !== null && metal !== null ? metal - dewC : null };
}
