import { database } from "@/server/database";
import { labelsPdf } from "@/server/labels/label-pdf";
import { labelKinds, labelsOf } from "@/server/labels/labels-of";
import { now } from "@/server/now";
import { siteAt } from "@/server/setup/setup-data";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** Labels with codes: `of` rack, piece, panel, lot or drum, by `number` or for all racks of a `job`; `paper` a4 or roll. */
export async function GET(request: Request): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: who.refusal.kind === "signed-out" ? 401 : 403 });
  const asked = new URL(request.url).searchParams;
  const of = labelKinds.find((k) => k === asked.get("of"));
  if (!of) return Response.json({ kind: "unknown-label", of: labelKinds }, { status: 400 });
  const text = (name: string) => (asked.get(name) ?? "").trim().slice(0, 80);
  const db = database();
  const at = now();
  const base = process.env.BASE_URL ?? new URL(request.url).origin;
  const [found, site] = await Promise.all([
    labelsOf(db, who.person, { of, number: text("number"), job: text("job") }, base, at),
    siteAt(db, at),
  ]);
  if (!found.ok) return Response.json(found.failure, { status: 404 });
  const pdf = await labelsPdf(found.labels, site.name, asked.get("paper") === "roll" ? "roll" : "a4");
  return new Response(new Uint8Array(pdf), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `inline; filename="labels-${of}.pdf"`,
      "cache-control": "no-store",
    },
  });
}
