import type { Kysely } from "kysely";
import * as v from "valibot";
import type { Json } from "@/db/detail-tables";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { coolingOf } from "../cure/cooling";
import { badEntry, said, text } from "../input";
import { type EntryOutcome, refuse } from "../outcome";
import { judgeRack } from "../rack/judge-rack";
import { customersView, loadRack, newestOf } from "../rack/load-rack";
import { storeOne } from "../record/store-record";
import type { Person } from "../sign-in/roles";
import { conditionsWhenPassed } from "../trace/conditions";
import { type Clock, write } from "../write";
import { certificateFacts } from "./certificate-facts";

export const decisions = ["accept", "hold", "scuff-and-recoat", "strip", "concession", "scrap"] as const;
export const dispositionSchema = v.object({
  id: v.pipe(v.string(), v.uuid()),
  rack: text(20),
  decision: v.picklist(decisions),
  note: said(600, "is too short: name the reason"),
  seen: v.nullable(v.pipe(v.string(), v.uuid())),
  /** Of a concession: how many gaps were on screen, each named. */
  conceded: v.optional(v.pipe(v.number(), v.integer(), v.minValue(0)), 0),
});

/**
 * Decides on a rack. The verdict as it stands is stored with it: result, numbers, the rule and the records it rests
 * on. `seen` is the decision the lead had on screen; when another has come since, theirs is shown first.
 * Failures: `bad-entry`, `unknown-rack`, `accept-against-verdict`, `concession-unseen`, `still-warm`, `decided-meanwhile`.
 */
export async function dispose(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<EntryOutcome> {
  const parsed = v.safeParse(dispositionSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { id, decision, note, seen, conceded } = parsed.output;
  return write(db, [lock.rack(parsed.output.rack)], clock, async (trx, at) => {
    const rack = await loadRack(trx, person, parsed.output.rack);
    if (!rack) return refuse({ kind: "unknown-rack", number: parsed.output.rack });
    const before = newestOf(rack.current, "disposition");
    if (before?.base.id === id) return { ok: true, recordId: id, already: true };
    if ((before?.base.id ?? null) !== seen)
      return {
        ok: false,
        failure: {
          kind: "decided-meanwhile",
          by: before?.by,
          decision: before?.details.disposition?.[0]?.decision,
        },
      };
    const conditions = await conditionsWhenPassed(trx, [rack.id], rack.hungAt);
    const verdict = judgeRack(rack, conditions);
    const gaps = [...verdict.out, ...verdict.missing];
    if (decision === "accept" && gaps.length > 0)
      return refuse({ kind: "accept-against-verdict", items: gaps.map((i) => i.item) });
    if (decision === "concession" && conceded < gaps.length)
      return refuse({ kind: "concession-unseen", items: gaps.map((i) => i.item), seen: conceded });
    const cooling = decision === "accept" ? await coolingOf(trx, rack, at) : null;
    if (cooling?.state === "warm")
      return {
        ok: false,
        failure: {
          kind: "still-warm",
          nowC: cooling.nowC,
          belowC: cooling.handleBelowC,
          coolAt: cooling.coolAt?.toISOString() ?? null,
          load: cooling.load,
        },
      };
    // It is printed for the customer: other customers’ probes in a shared load are told by number.
    const shown = customersView(rack);
    const stored: Json = {
      result: verdict.result,
      grade: verdict.grade,
      limiting: verdict.limiting?.item ?? null,
      missing: verdict.missing.map((i) => i.item),
      requirement: plain(rack.job.requirement),
      partVersion: rack.part.versionId,
      powderVersion: rack.powder.versionId,
      // What was signed stays: every item with its numbers and limits, and what the certificate names.
      items: plain(judgeRack(shown, conditions).items),
      notAsked: [...verdict.notAsked],
      facts: plain(await certificateFacts(trx, shown, at)),
    };
    return storeOne(
      trx,
      {
        id,
        kind: "disposition",
        happenedAt: at,
        by: person.username,
        grade: "measured",
        idempotencyKey: `disposition:${id}`,
        jobId: rack.job.id,
        rackId: rack.id,
        details: { disposition: [{ decision, note, verdict: stored, signed_name: person.name }] },
      },
      at,
    );
  });
}

/** As it is kept in the record: what JSON holds of it. */
const plain = (value: unknown): Json => JSON.parse(JSON.stringify(value)) as Json;
