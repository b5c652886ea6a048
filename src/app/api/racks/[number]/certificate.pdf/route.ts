import { certificateAsked } from "@/app/certificate-asked";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** The certificate of a rack that was let go, the same each time; anything else has none. */
export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { number } = await params;
  const kept = await certificateAsked(who.person, number, request.url);
  if (kept instanceof Response) return kept;
  return new Response(new Uint8Array(kept.bytes), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `inline; filename="certificate-${number}.pdf"`,
      "cache-control": "no-store",
    },
  });
}
