import { baseAddress } from "@/server/base-address";
import { certificateJsonSchema } from "@/server/release/certificate-schema";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** What a certificate as JSON holds, as a JSON Schema. */
export async function GET(): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  return Response.json(certificateJsonSchema(baseAddress()), {
    headers: { "content-type": "application/schema+json", "cache-control": "no-store" },
  });
}
