import { certificateOf } from "@/app/certificate";
import { baseAddress } from "@/server/base-address";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { CERTIFICATE_SCHEMA_PATH } from "@/server/release/certificate-schema";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** A certificate as JSON: what its PDF says, word for word, with the schema that says what is what. */
export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { number } = await params;
  const { units } = await preferences();
  const decision = new URL(request.url).searchParams.get("decision");
  const made = await certificateOf(database(), who.person, number, units, now, decision);
  if (!made.ok) return Response.json(made.failure, { status: made.failure.kind === "unknown-rack" ? 404 : 409 });
  return Response.json(
    { $schema: `${baseAddress()}${CERTIFICATE_SCHEMA_PATH}`, ...(made.kept.document as object) },
    {
      headers: {
        "content-disposition": `inline; filename="certificate-${number}.json"`,
        "cache-control": "no-store",
      },
    },
  );
}
