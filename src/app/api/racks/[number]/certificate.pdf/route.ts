import { certificateOf } from "@/app/certificate";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** The certificate of a rack that was accepted or conceded, the same each time; anything else has none. */
export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { number } = await params;
  const { units } = await preferences();
  // One of several decisions, where some pieces left before others.
  const decision = new URL(request.url).searchParams.get("decision");
  const made = await certificateOf(database(), who.person, number, units, now, decision);
  if (!made.ok) return Response.json(made.failure, { status: made.failure.kind === "unknown-rack" ? 404 : 409 });
  return new Response(new Uint8Array(made.kept.bytes), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `inline; filename="certificate-${number}.pdf"`,
      "cache-control": "no-store",
    },
  });
}
