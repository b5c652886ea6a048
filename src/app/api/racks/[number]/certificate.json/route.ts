import { certificateAsked } from "@/app/certificate-asked";
import { baseAddress } from "@/server/base-address";
import { CERTIFICATE_SCHEMA_PATH } from "@/server/release/certificate-schema";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** A certificate as JSON: what its PDF says, word for word, with the schema that says what is what. */
export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { number } = await params;
  const kept = await certificateAsked(who.person, number, request.url);
  if (kept instanceof Response) return kept;
  return Response.json(
    { $schema: `${baseAddress()}${CERTIFICATE_SCHEMA_PATH}`, ...(kept.document as object) },
    {
      headers: {
        "content-disposition": `inline; filename="certificate-${number}.json"`,
        "cache-control": "no-store",
      },
    },
  );
}
