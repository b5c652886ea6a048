import type { Kysely } from "kysely";
import { isReleased } from "@/core/line";
import type { PrepStep } from "@/core/preparation";
import type { Failure } from "@/core/result";
import { mean } from "@/core/statistics";
import type { UnitSystem } from "@/core/units";
import type { DetailRow } from "@/db/detail-tables";
import type { Database } from "@/db/schema";
import { baseAddress } from "@/server/base-address";
import { errorText, log } from "@/server/log";
import type { EntryOutcome } from "@/server/outcome";
import { preferences } from "@/server/preferences";
import { judgeRack, type NotAsked, type VerdictItem } from "@/server/rack/judge-rack";
import { customersView, loadRack, newestOf, wholeDecision } from "@/server/rack/load-rack";
import { type CertificateContent, certificatePdf } from "@/server/release/certificate";
import { type CertificateFacts, certificateFacts } from "@/server/release/certificate-facts";
import { checkAddress, markOf } from "@/server/release/check-paper";
import { dispose } from "@/server/release/dispose";
import { type KeptCertificate, keepCertificate, keptCertificate } from "@/server/release/keep-certificate";
import type { Person } from "@/server/sign-in/roles";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import type { Clock } from "@/server/write";
import { dateAndTime, figure } from "@/ui/format";
import { decisionWords } from "@/ui/words/decisions";
import { gradeOnPaper } from "@/ui/words/grades";
import { prepFigure, prepStepName } from "@/ui/words/preparation";
import { filmRequired } from "@/ui/words/reasons";
import { itemName, itemSentence, notAskedName } from "@/ui/words/verdict";

type Signed = {
  readonly items: readonly VerdictItem[];
  readonly notAsked: readonly NotAsked[];
  readonly facts: CertificateFacts;
  readonly result: string;
};

/**
 * The certificate of a decision that let a rack or some of its pieces go, the newest on the whole of it where none is named: the one that was made, where one was; else made now from what
 * the decision was signed on, and kept, so that the next to ask is given the same. Failures: `unknown-rack`, `not-released`.
 */
export async function certificateOf(
  db: Kysely<Database>,
  person: Person,
  number: string,
  units: UnitSystem,
  clock: () => Date,
  decisionId: string | null = null,
): Promise<{ readonly ok: true; readonly kept: KeptCertificate } | { readonly ok: false; readonly failure: Failure }> {
  const found = await loadRack(db, person, number);
  const rack = found && customersView(found);
  if (!rack) return { ok: false, failure: { kind: "unknown-rack", number } };
  const decided = decisionId
    ? rack.current.find((r) => r.base.id === decisionId)
    : (wholeDecision(rack.current) ?? newestOf(rack.current, "disposition"));
  const row = decided?.details.disposition?.[0];
  if (!decided || !row || !isReleased(row.decision))
    return { ok: false, failure: { kind: "not-released", number, remedy: "A lead accepts the rack first." } };
  const before = await keptCertificate(db, decided.base.id);
  if (before) return { ok: true, kept: before };
  const on = (row.verdict ?? {}) as Partial<Signed>;
  // Decisions from before what they were signed on was kept whole: by the record as it stands.
  const verdict = on.facts ? null : judgeRack(rack, await conditionsWhenPassed(db, [rack.id], rack.hungAt));
  const signed: Signed = {
    items: on.facts && on.items ? on.items : (verdict?.items ?? []),
    notAsked: on.facts && on.notAsked ? on.notAsked : (verdict?.notAsked ?? []),
    facts: on.facts ?? (await certificateFacts(db, rack, decided.base.happened_at)),
    result: on.facts && on.result ? on.result : (verdict?.result ?? "unknown"),
  };
  const seal = await db
    .selectFrom("seal")
    .select(["number", "hash"])
    .orderBy("number", "desc")
    .limit(1)
    .executeTakeFirst();
  const said = contentOf(signed, {
    number: `${rack.number}-${decided.base.id.slice(-6)}`,
    rack: rack.number,
    decision: row.decision,
    classGiven: row.class_given,
    concession: decided.details.concession?.[0] ?? null,
    note: row.note,
    signedBy: row.signed_name,
    signedAt: decided.base.happened_at,
    recordId: decided.base.id,
    seal: seal ? `no. ${seal.number}, ${seal.hash}` : "none yet",
    film: filmRequired(rack.job.requirement.film, units),
    units,
    madeLate: verdict !== null,
  });
  const mark = markOf(said);
  const content = { ...said, check: { mark, address: checkAddress(baseAddress(), said.number, mark) } };
  const kept = await keepCertificate(
    db,
    {
      dispositionId: decided.base.id,
      number: content.number,
      bytes: await certificatePdf(content, await logoOf(db, signed.facts.logo ?? null)),
      document: JSON.parse(JSON.stringify(content)),
      by: decided.base.by_user,
      rackId: rack.id,
      jobId: rack.job.id,
    },
    clock as Clock,
  );
  return kept.ok ? { ok: true, kept } : kept;
}

/** A lead's decision, and with a release its certificate, so that it is made by what was signed and in the units of who signed. */
export async function decideAndCertify(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: () => Date,
): Promise<EntryOutcome> {
  const outcome = await dispose(db, person, input, clock);
  if (!outcome.ok) return outcome;
  const { units } = await preferences();
  const rack = String((input as { readonly rack?: unknown } | null)?.rack ?? "");
  try {
    await certificateOf(db, person, rack, units, clock, outcome.recordId);
  } catch (error) {
    // The decision stands; its certificate is made when it is first asked for.
    log("error", "certificate failed", { error: errorText(error) });
  }
  return outcome;
}

/** The customer's mark as it was when the decision was signed. */
const logoOf = async (db: Kysely<Database>, id: string | null): Promise<Buffer | null> =>
  id === null
    ? null
    : ((await db.selectFrom("file").select("bytes").where("id", "=", id).executeTakeFirst())?.bytes ?? null);

/** By whom, on what word, and how far a concession goes. */
const concessionSaid = (c: DetailRow<"concession"> | null): string[] =>
  c
    ? [
        `Taken by ${c.customer_name}: ${c.their_word}`,
        ...(c.zone ? [`Where: ${c.zone}`] : []),
        ...(c.limit_said ? [`How far: ${c.limit_said}`] : []),
        ...(c.until_on ? [`Until: ${c.until_on}`] : []),
      ]
    : [];

function contentOf(
  { items, notAsked, facts, result }: Signed,
  d: {
    readonly number: string;
    readonly rack: string;
    readonly decision: string;
    readonly note: string;
    readonly signedBy: string;
    readonly signedAt: Date;
    readonly classGiven: string | null;
    readonly concession: DetailRow<"concession"> | null;
    readonly recordId: string;
    readonly seal: string;
    readonly film: string;
    readonly units: UnitSystem;
    /** Made from the record as it stands, not from what was signed. */
    readonly madeLate: boolean;
  },
): CertificateContent {
  const { units } = d;
  const when = (iso: string) => dateAndTime(new Date(iso), facts.timeZone);
  const um = (value: number) => figure(value, "thickness", units).text;
  const gaps = items.filter((i) => i.result === "out" || i.result === "unknown");
  const said = (i: VerdictItem) => itemSentence(i, units);
  const gauges = facts.gauges.map(
    (g) =>
      `${g.code}, ${g.checkedAt === null ? "no shim check on record" : `${g.holds ? "held" : "failed"} on its shims ${when(g.checkedAt)}`}`,
  );
  const ovens = facts.bakes.map(
    (b) =>
      `${b.oven}, load ${b.load}, ${when(b.closedAt)}${b.pulledAt ? ` to ${when(b.pulledAt)}` : ""}; ${
        b.channels.length > 0 ? `trace of ${b.channels.join(", ")}` : "no trace"
      }${b.leftOut ? `; order set aside: ${b.leftOut}` : ""}`,
  );
  const named: [string, string][] = [
    ...(facts.customerOrder ? [["Your order", facts.customerOrder] as [string, string]] : []),
    ...(facts.deliveryNote ? [["Delivery note", facts.deliveryNote] as [string, string]] : []),
    ["Lots", facts.lots.join(", ") || "not on record"],
    ["Film asked", d.film],
    ["Gauge", gauges.join("; ") || "typed, no gauge on record"],
    ["Oven", ovens.join("; ") || "not on record"],
  ];
  return {
    number: d.number,
    site: facts.shop,
    customer: facts.customer,
    job: facts.job,
    rack: d.rack,
    part: facts.part,
    pieces:
      facts.serials.length === 1
        ? `1 piece, ${facts.serials[0] ?? ""}`
        : `${facts.serials.length} pieces, ${facts.serials[0] ?? ""} to ${facts.serials.at(-1) ?? ""}`,
    powder: facts.powder,
    named,
    coatedOn: when(facts.hungAt),
    decision: `${decisionWords[d.decision] ?? d.decision}${d.classGiven ? ` to class ${d.classGiven}` : ""}`,
    note: d.note,
    signedBy: d.signedBy,
    signedAt: dateAndTime(d.signedAt, facts.timeZone),
    verdictWord: result,
    items: items.map((i) => ({ name: itemName(i), ...said(i), grade: gradeOnPaper(i.grade) })),
    steps: [
      ...facts.steps.map((s) => ({
        name: prepStepName[s.step as PrepStep] ?? s.step,
        proof: s.done
          ? s.value === null
            ? "done"
            : prepFigure(s.step as PrepStep, s.value, units)
          : `left out: ${s.note ?? ""}`,
        grade: gradeOnPaper(s.grade),
      })),
      ...facts.coats.map((c) => ({
        name: `Coat ${c.no}, ${c.layer}`,
        proof: [
          c.booth,
          c.earthMohm === null ? "earth not read" : `earth ${c.earthMohm} MΩ`,
          c.kv === null ? "" : `${c.kv} kV`,
          c.leftOut ? `order set aside: ${c.leftOut}` : "",
        ]
          .filter(Boolean)
          .join(", "),
        grade: gradeOnPaper(c.grade),
      })),
    ],
    readings: [...new Set(facts.film.map((f) => f.face))].map((face) => ({
      face,
      spots: facts.film
        .filter((f) => f.face === face)
        .flatMap((f) => {
          const kept = f.readings.filter((r) => !r.rejected).map((r) => Math.max(0, r.um - facts.baseUm));
          return kept.length > 0
            ? [
                {
                  spot: f.spot,
                  mean: um(mean(kept)),
                  readings: f.readings
                    .map((r) => um(r.um) + (r.rejected ? ` (left out: ${r.rejected})` : ""))
                    .join("  "),
                },
              ]
            : [];
        }),
    })),
    conceded:
      d.decision === "concession" || d.decision === "downgrade"
        ? [...gaps.map((i) => `${itemName(i)}: ${said(i).word}. ${said(i).text}`), ...concessionSaid(d.concession)]
        : [],
    notMeasured: [
      ...items.filter((i) => i.result === "unknown").map((i) => `${itemName(i)} (asked)`),
      // Left out with a reason, or known, but not by measuring.
      ...items
        .filter((i) => i.result !== "unknown" && i.grade !== "measured")
        .map(
          (i) =>
            `${itemName(i)} (${i.plan?.by === "skipped" ? `left out: ${i.plan.skipped?.reason ?? ""}` : i.plan?.by === "sample" ? "by sample" : `asked; ${gradeOnPaper(i.grade)}`})`,
        ),
      ...notAsked.map((n) => `${notAskedName(n)} (not asked)`),
    ],
    ...(facts.wording ? { wording: facts.wording } : {}),
    seal: `${d.seal}${d.madeLate ? ". Made from the record as it stands: this decision is from before what was signed on was kept whole" : ""}`,
    units,
    recordId: d.recordId,
  };
}
