import type { RouteStep } from "@/core/plan";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { loadPlanFile } from "@/server/plan/load-plan";
import { routeCardPdf } from "@/server/plan/plan-pdf";
import { reworksOfRack } from "@/server/plan/reworks-of-rack";
import { preferences } from "@/server/preferences";
import { rackOfJob } from "@/server/rack/racks-of-job";
import { personWith } from "@/server/sign-in/person";
import { countOf, dateAndTime } from "@/ui/format";
import { cautions } from "@/ui/words/cautions";
import { decisionWords } from "@/ui/words/decisions";
import { checkName, parameterText, routeName } from "@/ui/words/plan";
import { stageNames } from "@/ui/words/reasons";

export const dynamic = "force-dynamic";

/** The route card of a job, for the shop; for one rack with `?rack=`. Its code opens the traveller at the address this was asked under. */
export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { number } = await params;
  const file = await loadPlanFile(database(), who.person, number, now());
  if (!file) return Response.json({ kind: "unknown-job", number }, { status: 404 });
  if (file.route.length === 0)
    return Response.json(
      { kind: "no-route-card", number, remedy: "Measure the part and choose its system first." },
      { status: 409 },
    );
  const asked = new URL(request.url).searchParams.get("rack");
  const rack = asked ? await rackOfJob(database(), file.jobId, asked) : null;
  if (asked && !rack) return Response.json({ kind: "unknown-rack", number: asked.slice(0, 20) }, { status: 404 });
  const { units } = await preferences();
  const base = process.env.BASE_URL ?? new URL(request.url).origin;
  const reworks = rack ? await reworksOfRack(database(), rack.id, file.route, file.powder.data.mostInAllUm) : [];
  const said = (s: RouteStep) => ({
    stage: stageNames[s.stage] ?? s.stage,
    name: routeName[s.code],
    parameters: s.parameters.map((p) => parameterText(p, units)).join(", "),
    checks: s.checks.map((c) => checkName[c]).join("; "),
    hold: s.hold,
  });
  const pdf = await routeCardPdf({
    site: file.site.name,
    customer: file.customer,
    job: file.number,
    part: file.partName,
    pieces: rack
      ? countOf(rack.pieces, "piece")
      : file.plan.pieces === null
        ? "pieces not counted"
        : countOf(file.plan.pieces, "piece"),
    order: file.customerOrder ?? "",
    due: file.dueOn ?? "",
    powder: `${file.powder.code} ${file.powder.data.name}`,
    version: file.plan.released && file.plan.version > 0 ? `version ${file.plan.version}, released` : "not released",
    address: rack ? `${base}/racks/${rack.number}` : `${base}/jobs/${file.number}/traveller`,
    rack: rack?.number ?? null,
    steps: file.route.map(said),
    reworks: reworks.map((r) => ({
      title: `${decisionWords[r.decision] ?? r.decision}, ${r.by}, ${dateAndTime(r.at, file.site.timeZone)}: ${r.note}`,
      steps: r.steps.map(said),
    })),
    marks: file.partItem.data.marks.map((m) => `${m.kind} on ${m.face}${m.note ? `: ${m.note}` : ""}`),
    cautions: [...new Set(file.route.map((s) => s.stage))].flatMap((stage) => cautions[stage] ?? []),
  });
  return new Response(new Uint8Array(pdf), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `inline; filename="route-card-${file.number}.pdf"`,
      "cache-control": "no-store",
    },
  });
}
