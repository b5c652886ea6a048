import { type Kysely, sql } from "kysely";
import { type ProofRate, proofRate } from "@/core/cure";
import { forPerson } from "@/db/queries/for-person";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";

export type UnprovenLoad = { readonly load: string; readonly oven: string; readonly pulledAt: Date };
export type ProofCoverage = {
  readonly rate: ProofRate;
  readonly days: number;
  readonly every: number;
  /** The newest first. */
  readonly unproven: readonly UnprovenLoad[];
};
export const PROOF_DAYS = 30;
const MOST_LOADS = 500;
const SHOWN = 8;

/** Of the loads pulled in the last thirty days those with a rub or another test of a rack in them since, before its next bake. One query. */
export async function proofCoverage(
  db: Kysely<Database>,
  person: Person,
  every: number,
  at: Date,
): Promise<ProofCoverage | null> {
  const since = new Date(at.getTime() - PROOF_DAYS * 86_400_000);
  const { rows } = await sql<{ load_no: string; oven: string; pulled_at: Date; proven: boolean }>`
    select b.load_no, e.code as oven, b.pulled_at, exists (
      select 1 from bake_place p join record r on r.rack_id = p.rack_id
      where p.record_id = b.record_id and r.kind in ('solvent-rub', 'cure-test') and r.happened_at > b.pulled_at and r.happened_at <= ${at}
        and ${stands("r.id")}
        and not exists (select 1 from bake_place q join bake c on c.record_id = q.record_id where q.rack_id = p.rack_id and c.door_closed_at > b.pulled_at and c.door_closed_at < r.happened_at)
    ) as proven
    from bake b join setup_entity e on e.id = b.oven_id
    where b.pulled_at > ${since} and b.pulled_at <= ${at} and ${stands("b.record_id")}
      and exists (select 1 from bake_place p join rack k on k.id = p.rack_id join job j on j.id = k.job_id
        where p.record_id = b.record_id and ${forPerson(person, "j.customer_id")})
    order by b.pulled_at desc limit ${MOST_LOADS}`.execute(db);
  const rate = proofRate(rows.map((r) => r.proven).reverse(), every);
  if (!rate.ok) return null;
  return {
    rate: rate.value,
    days: PROOF_DAYS,
    every,
    unproven: rows
      .filter((r) => !r.proven)
      .slice(0, SHOWN)
      .map((r) => ({ load: r.load_no, oven: r.oven, pulledAt: r.pulled_at })),
  };
}
