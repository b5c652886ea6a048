import type { Kysely } from "kysely";
import * as v from "valibot";
import { decisions, leaves, railStages } from "@/core/line";
import { madeStages, type ReworkCost } from "@/core/release";
import type { Failure } from "@/core/result";
import type { Json } from "@/db/detail-tables";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { coolingOf } from "../cure/cooling";
import { badEntry, number, said, text } from "../input";
import { type EntryOutcome, refuse } from "../outcome";
import { judgeRack, type RackVerdict } from "../rack/judge-rack";
import {
  customersView,
  loadRack,
  newestOf,
  ofPieces,
  piecesLeft,
  type RackFile,
  wholeDecision,
} from "../rack/load-rack";
import { storeOne } from "../record/store-record";
import { siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { conditionsWhenPassed } from "../trace/conditions";
import { type Clock, write } from "../write";
import { certificateFacts } from "./certificate-facts";
import { noteLookAgain } from "./look-again";
import { reworkPrice } from "./rework-price";

/** What a lead decides with a password; powder is wiped off at the booth, by an entry of its own. */
const signedDecisions = decisions.filter((d) => d !== "wipe-off");
const position = v.pipe(v.number(), v.integer(), v.minValue(1));
export const dispositionSchema = v.object({
  id: v.pipe(v.string(), v.uuid()),
  rack: text(20),
  decision: v.picklist(signedDecisions),
  note: said(600, "is too short: name the reason"),
  seen: v.nullable(v.pipe(v.string(), v.uuid())),
  /** Of a concession: how many gaps were on screen, each named. */
  conceded: v.optional(v.pipe(v.number(), v.integer(), v.minValue(0)), 0),
  /** By their places on the rack; null for all that is left on it. */
  pieces: v.optional(v.nullable(v.pipe(v.array(position), v.minLength(1, "are none"), v.maxLength(10_000))), null),
  foundAt: v.optional(v.nullable(v.picklist(railStages)), null),
  madeAt: v.optional(v.nullable(v.picklist(madeStages)), null),
  /** What the rework takes, min, where somebody says. */
  minutes: v.optional(v.nullable(number(0, 100_000)), null),
  classGiven: v.optional(v.nullable(text(40)), null),
  concession: v.optional(
    v.nullable(
      v.object({
        customerName: said(80, "is too short: who of the customer’s said so"),
        theirWord: said(400, "is too short: what they said, and where it is written"),
        zone: text(120),
        limit: text(200),
        until: v.nullable(v.pipe(v.string(), v.isoDate("is not a date"))),
      }),
    ),
    null,
  ),
});
type Decided = v.InferOutput<typeof dispositionSchema>;

/**
 * Decides on a rack, or on some of its pieces, which then leave it while the rest keeps its thread. The verdict as it stands
 * for them is stored with it: result, numbers, the rule and the records it rests on. `seen` is the decision the lead had on
 * screen; when another has come since, theirs is shown first.
 * Failures: `bad-entry`, `unknown-rack`, `accept-against-verdict`, `concession-unseen`, `concession-unnamed`,
 * `class-missing`, `no-such-piece`, `piece-gone`, `part-only-leaves`, `nothing-left`, `still-warm`, `decided-meanwhile`.
 */
export async function dispose(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<EntryOutcome> {
  const parsed = v.safeParse(dispositionSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const asked = parsed.output;
  const { id, decision, note, seen } = asked;
  return write(db, [lock.rack(asked.rack)], clock, async (trx, at) => {
    const all = await loadRack(trx, person, asked.rack);
    if (!all) return refuse({ kind: "unknown-rack", number: asked.rack });
    const before = newestOf(all.current, "disposition");
    if (before?.base.id === id) return { ok: true, recordId: id, already: true };
    if ((before?.base.id ?? null) !== seen)
      return refuse({
        kind: "decided-meanwhile",
        by: before?.by,
        decision: before?.details.disposition?.[0]?.decision,
      });
    const chosen = chosenPieces(all, asked);
    if (!chosen.ok) return refuse(chosen.failure);
    const { part } = chosen;
    const rack = ofPieces(all, chosen.pieces);
    const conditions = await conditionsWhenPassed(trx, [rack.id], rack.hungAt);
    const verdict = judgeRack(rack, conditions);
    const against = againstVerdict(asked, verdict);
    if (against) return refuse(against);
    const warm = decision === "accept" ? await stillWarm(trx, rack, at) : null;
    if (warm) return refuse(warm);
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
    const cost = await costOf(trx, rack, asked, at);
    const { concession } = asked;
    const kept = await storeOne(
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
        details: {
          disposition: [
            {
              decision,
              note,
              verdict: stored,
              signed_name: person.name,
              pieces: part ? chosen.pieces.length : null,
              found_at: decision === "accept" ? null : asked.foundAt,
              made_at: decision === "accept" ? null : asked.madeAt,
              minutes: asked.minutes,
              powder_kg: cost?.powderKg ?? null,
              cost: cost?.cost ?? null,
              currency: cost?.currency ?? null,
              class_given: decision === "downgrade" ? asked.classGiven : null,
            },
          ],
          ...(part ? { disposition_piece: chosen.pieces.map((p) => ({ piece_id: p.id })) } : {}),
          ...(decision === "concession" && concession
            ? {
                concession: [
                  {
                    customer_name: concession.customerName,
                    their_word: concession.theirWord,
                    zone: concession.zone || null,
                    limit_said: concession.limit || null,
                    until_on: concession.until,
                  },
                ],
              }
            : {}),
        },
      },
      at,
    );
    // A test on a panel that stands for this rack may have come while it was judged.
    if (kept.ok && !kept.already && leaves(decision))
      await noteLookAgain(trx, [{ id, kind: "disposition", happenedAt: at, rackId: rack.id }], at);
    return kept;
  });
}

type Chosen =
  | { ok: true; pieces: RackFile["pieces"] /** Some of what is left, not all of it. */; part: boolean }
  | { ok: false; failure: Failure };

function chosenPieces(rack: RackFile, { pieces, decision }: Decided): Chosen {
  const left = piecesLeft(rack.pieces, rack.current);
  if (pieces === null) {
    if (left.length === 0 && rack.pieces.length > 0)
      return { ok: false, failure: { kind: "nothing-left", number: rack.number, pieces: rack.pieces.length } };
    return { ok: true, pieces: [...left], part: false };
  }
  const named = new Set(pieces);
  for (const n of named) {
    const piece = rack.pieces.find((p) => p.position === n);
    if (!piece) return { ok: false, failure: { kind: "no-such-piece", piece: n, of: rack.pieces.length } };
    if (!left.includes(piece)) return { ok: false, failure: { kind: "piece-gone", piece: n, serial: piece.serial } };
  }
  const chosen = left.filter((p) => named.has(p.position));
  const part = chosen.length < left.length;
  // What left as a whole is called back as a whole first.
  if (part && leaves(wholeDecision(rack.current)?.details.disposition?.[0]?.decision))
    return { ok: false, failure: { kind: "nothing-left", number: rack.number, pieces: rack.pieces.length } };
  // What is sent back or held hangs there still: that is decided on all that hangs.
  if (part && !leaves(decision)) return { ok: false, failure: { kind: "part-only-leaves", decision } };
  return { ok: true, pieces: chosen, part };
}

/** What the verdict or the decision itself is missing; null where nothing is. */
function againstVerdict(asked: Decided, verdict: RackVerdict): Failure | null {
  const { decision, conceded, concession, classGiven } = asked;
  const gaps = [...verdict.out, ...verdict.missing];
  const items = gaps.map((i) => i.item);
  if (decision === "accept" && gaps.length > 0) return { kind: "accept-against-verdict", items };
  if ((decision === "concession" || decision === "downgrade") && conceded < gaps.length)
    return { kind: "concession-unseen", items, seen: conceded };
  if (decision === "concession" && !concession) return { kind: "concession-unnamed" };
  if (decision === "downgrade" && !classGiven) return { kind: "class-missing" };
  return null;
}

async function stillWarm(trx: Kysely<Database>, rack: RackFile, at: Date): Promise<Failure | null> {
  const cooling = await coolingOf(trx, rack, at);
  return cooling?.state === "warm"
    ? {
        kind: "still-warm",
        nowC: cooling.nowC,
        belowC: cooling.handleBelowC,
        coolAt: cooling.coolAt?.toISOString() ?? null,
        load: cooling.load,
      }
    : null;
}

async function costOf(
  trx: Kysely<Database>,
  rack: RackFile,
  { decision, minutes }: Decided,
  at: Date,
): Promise<ReworkCost | null> {
  if (decision !== "touch-up" && decision !== "scuff-and-recoat" && decision !== "strip") return null;
  return reworkPrice(rack, await siteAt(trx, at), decision, minutes);
}

/** As it is kept in the record: what JSON holds of it. */
const plain = (value: unknown): Json => JSON.parse(JSON.stringify(value)) as Json;
