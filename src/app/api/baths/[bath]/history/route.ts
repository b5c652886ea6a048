import { bathParameters, codeOfSlug } from "@/core/bath";
import { bathHistory } from "@/server/baths/bath-history";
import { findBath } from "@/server/baths/find-bath";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** Every check of one value of a bath, for its long chart. */
export async function GET(request: Request, { params }: { params: Promise<{ bath: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const name = codeOfSlug((await params).bath);
  const parameter = bathParameters.find((p) => p === new URL(request.url).searchParams.get("parameter"));
  const bath = await findBath(database(), name, now());
  if (!bath || !parameter || !bath.data.windows[parameter])
    return Response.json({ kind: "unknown-bath", name: name.slice(0, 60) }, { status: 404 });
  return Response.json(await bathHistory(database(), bath.id, parameter, now()), {
    headers: { "cache-control": "private, no-store" },
  });
}
