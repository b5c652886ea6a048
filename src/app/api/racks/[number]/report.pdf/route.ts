import { inspectionReport } from "@/app/inspection-report";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** The inspection report of a rack as its record stands now, to whoever may see the rack. */
export async function GET(_: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { number } = await params;
  const { units } = await preferences();
  const pdf = await inspectionReport(database(), who.person, number, units, now());
  if (!pdf) return Response.json({ kind: "unknown-rack", number: number.slice(0, 20) }, { status: 404 });
  return new Response(new Uint8Array(pdf), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `inline; filename="inspection-${encodeURIComponent(number)}.pdf"`,
      "cache-control": "no-store",
    },
  });
}
