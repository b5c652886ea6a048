import { fieldReport } from "@/app/field-report";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** The report on a structure as its record stands now, to whoever may see the structure. */
export async function GET(_: Request, { params }: { params: Promise<{ code: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { code } = await params;
  const { units } = await preferences();
  const pdf = await fieldReport(database(), who.person, code, units, now());
  if (!pdf) return Response.json({ kind: "unknown-structure", name: code.slice(0, 40) }, { status: 404 });
  return new Response(new Uint8Array(pdf), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `inline; filename="report-${encodeURIComponent(code)}.pdf"`,
      "cache-control": "no-store",
    },
  });
}
