import type { PrepStep } from "@/core/preparation";
import { spotMeans } from "@/core/thickness";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { filmSets } from "@/server/rack/film-layers";
import { judgeRack, spotsOf } from "@/server/rack/judge-rack";
import { loadRack, newestOf } from "@/server/rack/load-rack";
import { certificatePdf } from "@/server/release/certificate";
import { siteAt } from "@/server/setup/setup-data";
import { personWith } from "@/server/sign-in/person";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { dateAndTime, figure } from "@/ui/format";
import { decisionWords } from "@/ui/words/decisions";
import { prepFigure, prepStepName } from "@/ui/words/preparation";
import { itemName, itemSentence } from "@/ui/words/reasons";

export const dynamic = "force-dynamic";

/** The certificate of a rack that was accepted or conceded; anything else has none. */
export async function GET(_: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { number } = await params;
  const rack = await loadRack(database(), who.person, number);
  if (!rack) return Response.json({ kind: "unknown-rack", number }, { status: 404 });
  const decided = newestOf(rack.current, "disposition");
  const row = decided?.details.disposition?.[0];
  if (!decided || !row || (row.decision !== "accept" && row.decision !== "concession"))
    return Response.json({ kind: "not-released", number, remedy: "A lead accepts the rack first." }, { status: 409 });
  const [{ units }, site, conditions, seal] = await Promise.all([
    preferences(),
    siteAt(database(), now()),
    conditionsWhenPassed(database(), [rack.id], rack.hungAt),
    database().selectFrom("seal").select(["number", "hash"]).orderBy("number", "desc").limit(1).executeTakeFirst(),
  ]);
  const verdict = judgeRack(rack, conditions);
  const means = spotMeans(spotsOf(rack).map((s) => s.spot));
  const um = (value: number) => figure(value, "thickness", units).text;
  const gradeWord = { measured: "measured", "by-procedure": "by procedure", assumed: "assumed", unknown: "not known" };
  const pdf = await certificatePdf({
    number: `${rack.number}-${decided.base.id.slice(-6)}`,
    site: site.name,
    customer: rack.customer,
    job: rack.job.number,
    rack: rack.number,
    part: rack.part.data.name,
    pieces:
      rack.pieces.length === 1
        ? `1 piece, ${rack.pieces[0]?.serial ?? ""}`
        : `${rack.pieces.length} pieces, ${rack.pieces[0]?.serial ?? ""} to ${rack.pieces.at(-1)?.serial ?? ""}`,
    powder: `${rack.powder.code} ${rack.powder.data.name}`,
    coatedOn: dateAndTime(rack.hungAt, site.timeZone),
    decision: decisionWords[row.decision] ?? row.decision,
    note: row.note,
    signedBy: row.signed_name,
    signedAt: dateAndTime(decided.base.happened_at, site.timeZone),
    verdictWord: verdict.result,
    items: verdict.items.map((i) => ({ name: itemName(i.item), ...itemSentence(i, units), grade: gradeWord[i.grade] })),
    steps: rack.evidence.flatMap((r) => {
      const step = r.details.prep_step?.[0];
      const coat = r.details.coat?.[0];
      const grade = gradeWord[r.base.grade];
      if (step)
        return [
          {
            name: prepStepName[step.step as PrepStep] ?? step.step,
            proof: step.done
              ? step.value === null
                ? "done"
                : prepFigure(step.step as PrepStep, step.value, units)
              : `left out: ${step.note ?? ""}`,
            grade,
          },
        ];
      if (coat)
        return [
          {
            name: `Coat ${coat.coat_no}, ${coat.layer}`,
            proof: [
              coat.booth,
              coat.earth_mohm === null ? "earth not read" : `earth ${coat.earth_mohm} MΩ`,
              coat.kv === null ? "" : `${coat.kv} kV`,
            ]
              .filter(Boolean)
              .join(", "),
            grade,
          },
        ];
      return [];
    }),
    readings: rack.part.data.faces.map((f) => ({
      face: f.name,
      spots: f.spots.flatMap((s) => {
        const m = means.ok ? means.value.means.find((x) => x.id === s.id) : undefined;
        const all = filmSets(rack)
          .flatMap((r) => r.details.thickness_reading ?? [])
          .filter((r) => r.spot === s.id && r.face === f.id);
        return m
          ? [
              {
                spot: s.id,
                mean: um(m.meanUm),
                readings: all
                  .map((r) => um(r.value_um) + (r.rejected_reason ? ` (left out: ${r.rejected_reason})` : ""))
                  .join("  "),
              },
            ]
          : [];
      }),
    })),
    notMeasured: [
      ...verdict.missing.map((m) => itemName(m)),
      ...(verdict.items.some((i) => i.item === "rub") ? [] : ["Solvent rub"]),
      "Gloss",
      "Colour",
      "Impact",
      "Hardness",
    ],
    seal: seal ? `no. ${seal.number}, ${seal.hash}` : "none yet",
    units,
    recordId: decided.base.id,
  });
  return new Response(new Uint8Array(pdf), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `inline; filename="certificate-${rack.number}.pdf"`,
      "cache-control": "no-store",
    },
  });
}
