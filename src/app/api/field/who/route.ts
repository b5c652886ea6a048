import { now } from "@/server/now";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** Who is signed in on this device, and what time it is here: asked before what waits is sent. */
export async function GET(): Promise<Response> {
  const who = await personWith("inspect");
  const serverMs = now().getTime();
  return who.ok
    ? Response.json({ user: who.person.username, serverMs }, { headers: { "cache-control": "no-store" } })
    : Response.json(
        { failure: who.refusal, serverMs },
        { status: who.refusal.kind === "signed-out" ? 401 : 403, headers: { "cache-control": "no-store" } },
      );
}
