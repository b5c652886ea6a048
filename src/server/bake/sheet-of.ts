import { sql } from "kysely";
import { gelSchedule, type PowderSchedule } from "@/core/cure";
import { stands } from "@/db/queries/stands";
import { type SetupItem, scheduleOfPowder } from "../setup/setup-data";

/** The newest coat on a rack before a bake: what is on top decides what the oven has to do. */
export type CoatOnTop = { readonly lot: string; readonly layer: string; readonly system: string | null };
export type BakeSheet = {
  readonly powder: SetupItem<"powder">;
  readonly schedule: PowderSchedule;
  /** A primer that is only to gel: 100 is gelled, past its over-bake the top coat may not bond. */
  readonly gel: boolean;
};

/** The sheet a bake is held against: that of the powder on top, its gel where the primer is to be gelled; the job's where no coat says. */
export function sheetOf(
  coat: CoatOnTop | null,
  lots: ReadonlyMap<string, SetupItem<"lot">>,
  powders: ReadonlyMap<string, SetupItem<"powder">>,
  jobPowder: SetupItem<"powder">,
): BakeSheet {
  const code = coat ? lots.get(coat.lot)?.data.powderCode : undefined;
  const own = code ? [...powders.values()].find((p) => p.code === code) : undefined;
  const powder = coat?.layer === "primer" && own ? own : jobPowder;
  const { gel, schedule } = powder.data;
  const gelled = coat?.layer === "primer" && coat.system === "primer-gelled" && gel ? gelSchedule(gel, schedule) : null;
  return gelled?.ok
    ? { powder, schedule: gelled.value, gel: true }
    : { powder, schedule: scheduleOfPowder(powder.data), gel: false };
}

/** Of a query with rack k: its newest coat before a moment, as JSON; null where none is on record. */
export const coatOnTop = (before: ReturnType<typeof sql>) => sql<CoatOnTop | null>`(
  select jsonb_build_object('lot', c.lot_id, 'layer', c.layer, 'system', c.system) from record r join coat c on c.record_id = r.id
  where r.rack_id = k.id and r.kind = 'coat' and r.happened_at <= ${before} and ${stands("r.id")}
  order by r.happened_at desc limit 1)`;
/** Of a query with rack k and bake b: the layer that was on top as the door closed. */
export const layerOnTop = sql<string>`coalesce(${coatOnTop(sql`b.door_closed_at`)} ->> 'layer', 'top')`;
