import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import type { Failure } from "@/core/result";
import type { Database } from "@/db/schema";
import { badEntry, said, text } from "../input";
import { newId } from "../now";
import { type Outcome, refuse } from "../outcome";
import { dispose } from "../release/dispose";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";

const holdSchema = v.object({
  caseNumber: text(20),
  racks: v.pipe(v.array(text(20)), v.minLength(1, "are none"), v.maxLength(400, "are more than 400")),
  note: said(400, "is too short: say why they are held"),
});
export type Held = {
  readonly held: readonly string[];
  readonly already: readonly string[];
  readonly refused: readonly { readonly rack: string; readonly failure: Failure }[];
};

/**
 * Holds every named rack that has not left, for a case, in one step: each gets its own signed decision with the verdict as it
 * stands. One that is held already stays so; one that was decided otherwise meanwhile, or has left, is told of and not
 * touched. Sent again it holds what is left to hold. Failures: `bad-entry`, `unknown-case`. One decision a rack.
 */
export async function holdAtRisk(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<Held>> {
  const parsed = v.safeParse(holdSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { caseNumber, racks, note } = parsed.output;
  const found = await db.selectFrom("root_cause_case").select("id").where("number", "=", caseNumber).executeTakeFirst();
  if (!found) return refuse({ kind: "unknown-case", number: caseNumber });
  const { rows } = await sql<{ number: string; gone: boolean; newest: string | null; decision: string | null }>`
    select k.number, s.gone_at is not null as gone, d.id as newest, d.decision from rack k left join rack_standing s on s.rack_id = k.id
    left join lateral (select r.id, x.decision from record r join disposition x on x.record_id = r.id where r.rack_id = k.id and r.kind = 'disposition' order by r.happened_at desc, r.stored_at desc, r.id desc limit 1) d on true
    where k.number = any(${racks}::text[]) order by k.number`.execute(db);
  const held: string[] = [];
  const already: string[] = [];
  const refused: { rack: string; failure: Failure }[] = [];
  for (const number of racks)
    if (!rows.some((r) => r.number === number))
      refused.push({ rack: number, failure: { kind: "unknown-rack", number } });
  for (const rack of rows) {
    if (rack.decision === "hold") {
      already.push(rack.number);
      continue;
    }
    if (rack.gone) {
      refused.push({ rack: rack.number, failure: { kind: "rack-has-left", number: rack.number } });
      continue;
    }
    const outcome = await dispose(
      db,
      person,
      { id: newId(), rack: rack.number, decision: "hold", note: `Case ${caseNumber}: ${note}`, seen: rack.newest },
      clock,
    );
    if (outcome.ok) held.push(rack.number);
    else refused.push({ rack: rack.number, failure: outcome.failure });
  }
  return { ok: true, held, already, refused };
}
