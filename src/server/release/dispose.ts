import type { Kysely } from "kysely";
import * as v from "valibot";
import type { Json } from "@/db/detail-tables";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { coolingOf } from "../cure/cooling";
import { badEntry, said, text } from "../input";
import { type EntryOutcome, refuse } from "../outcome";
import { judgeRack } from "../rack/judge-rack";
import { loadRack, newestOf } from "../rack/load-rack";
import { storeOne } from "../record/store-record";
import type { Person } from "../sign-in/roles";
import { conditionsWhenPassed } from "../trace/conditions";
import { type Clock, write } from "../write";

export const decisions = ["accept", "hold", "scuff-and-recoat", "strip", "concession", "scrap"] as const;
export const dispositionSchema = v.object({
  id: v.pipe(v.string(), v.uuid()),
  rack: text(20),
  decision: v.picklist(decisions),
  note: said(600, "is too short: name the reason"),
  seen: v.nullable(v.pipe(v.string(), v.uuid())),
});

/**
 * Decides on a rack. The verdict as it stands is stored with it: result, numbers, the rule and the records it rests
 * on. `seen` is the decision the lead had on screen; when another has come since, theirs is shown first.
 * Failures: `bad-entry`, `unknown-rack`, `accept-against-verdict`, `still-warm`, `decided-meanwhile`.
 */
export async function dispose(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<EntryOutcome> {
  const parsed = v.safeParse(dispositionSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { id, decision, note, seen } = parsed.output;
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
    const verdict = judgeRack(rack, await conditionsWhenPassed(trx, [rack.id], rack.hungAt));
    if (decision === "accept" && (verdict.result === "out" || verdict.missing.length > 0))
      return refuse({ kind: "accept-against-verdict", limiting: verdict.limiting, missing: verdict.missing });
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
    const stored: Json = {
      result: verdict.result,
      grade: verdict.grade,
      limiting: verdict.limiting,
      missing: [...verdict.missing],
      requirement: JSON.parse(JSON.stringify(rack.job.requirement)),
      partVersion: rack.part.versionId,
      powderVersion: rack.powder.versionId,
      items: verdict.items.map((i) => ({
        item: i.item,
        result: i.result,
        grade: i.grade,
        sources: [...i.sources],
        ...numbersOf(i),
      })),
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

function numbersOf(item: ReturnType<typeof judgeRack>["items"][number]): { [key: string]: Json } {
  switch (item.item) {
    case "film":
      return item.film
        ? {
            meanUm: item.film.meanUm,
            read: item.film.read,
            asked: item.film.asked,
            reasons: JSON.parse(JSON.stringify(item.film.reasons)),
          }
        : {};
    case "cure":
      return item.bake ? { index: item.bake.decidingIndex, channel: item.bake.decidingChannel } : {};
    case "adhesion":
      return { iso: item.iso, astm: item.astm };
    case "rub":
      return { grade: item.rubGrade, doubleRubs: item.doubleRubs };
    case "appearance":
      return { defect: item.defect, affected: item.affected, seen: item.seen };
    case "pretreatment":
      return item.worst ? { ...item.worst } : {};
  }
}
