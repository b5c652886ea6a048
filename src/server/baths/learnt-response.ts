import { type Kysely, sql } from "kysely";
import { type BathParameter, learnResponse } from "@/core/bath";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";

export type LearntResponse = { readonly changePerLPerM3: number; readonly standardError: number; readonly n: number };

/** Additions looked back on, and how long before and after one its checks may lie, h. */
const MOST_ADDITIONS = 24;
const CHECK_WITHIN_HOURS = 8;

/**
 * What a litre of a product has done to a value of this bath, learnt from its own past additions: the last check before against
 * the first after, no other change between them. Null with fewer than five. Additions × three index probes.
 */
export async function learntResponse(
  db: Kysely<Database>,
  bath: { readonly id: string; readonly volumeL: number },
  of: { readonly parameter: BathParameter; readonly product: string; readonly toward: 1 | -1 },
  at: Date,
): Promise<LearntResponse | null> {
  const near = sql.raw(`interval '${CHECK_WITHIN_HOURS} hours'`);
  const check = (side: "before" | "after") => sql`
    select k.value, c.happened_at from record c join bath_check k on k.record_id = c.id and k.parameter = ${of.parameter}
    where c.bath_id = r.bath_id and c.kind = 'bath-check' and ${stands("c.id")}
      and ${side === "before" ? sql`c.happened_at <= r.happened_at and c.happened_at > r.happened_at - ${near}` : sql`c.happened_at > r.happened_at and c.happened_at < r.happened_at + ${near}`}
    order by c.happened_at ${sql.raw(side === "before" ? "desc" : "asc")} limit 1`;
  const { rows } = await sql<{ litres: number; change: number }>`
    select e.amount_l as litres, a.value - b.value as change
    from record r join bath_event e on e.record_id = r.id
    cross join lateral (${check("before")}) b cross join lateral (${check("after")}) a
    where r.bath_id = ${bath.id} and r.kind = 'bath-event' and r.happened_at <= ${at} and e.event = 'addition'
      and e.amount_l > 0 and lower(e.product) = ${of.product.toLowerCase()}
      and ${stands("r.id")}
      and not exists (select 1 from record o where o.bath_id = r.bath_id and o.kind = 'bath-event' and o.id <> r.id
        and o.happened_at > b.happened_at and o.happened_at < a.happened_at)
    order by r.happened_at desc limit ${MOST_ADDITIONS}`.execute(db);
  const learnt = learnResponse(rows.map((row) => ({ ...row, volumeL: bath.volumeL })));
  // An acid that raises pH is a slip in the records, not a response to dose by.
  return learnt.ok && learnt.value.changePerLPerM3 * of.toward > 0 ? learnt.value : null;
}
