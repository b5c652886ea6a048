import { fieldPack } from "@/app/field-pack";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";
/** So many structures can be asked for by name at once. */
const MOST_ASKED = 200;

/** What a round takes along: structures due, those asked for by `of`, their zones and what was read there. */
export async function GET(request: Request): Promise<Response> {
  const who = await personWith("inspect");
  if (!who.ok) return Response.json(who.refusal, { status: who.refusal.kind === "signed-out" ? 401 : 403 });
  const asked = new URL(request.url).searchParams.getAll("of").slice(0, MOST_ASKED);
  const line = await currentLine(who.person);
  const pack = await fieldPack(database(), who.person, asked, await preferences(), line.timeZone, now());
  return Response.json(pack, { headers: { "cache-control": "no-store" } });
}
