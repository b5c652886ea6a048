import { database } from "@/server/database";
import { errorText, log } from "@/server/log";
import { now } from "@/server/now";
import { personWith } from "@/server/sign-in/person";
import type { Person } from "@/server/sign-in/roles";

/** Whether a request comes from a page of this application, as browsers say it; what is no browser says nothing. */
function fromHere(request: Request): boolean {
  const site = request.headers.get("sec-fetch-site");
  return site === null || site === "same-origin" || site === "none";
}

type Answer = (body: object, status?: number) => Response;
/**
 * What a device sends that may have been without a network: from a page of this application, by somebody who inspects, of no
 * more bytes than are taken (one that does not say how many is not read). Every answer says what time it is here. What breaks
 * is logged by its name and answered as `not-saved`, and the device sends it again.
 */
export async function fromDevice(
  request: Request,
  most: { readonly bytes: number; readonly refusal: (bytes: number) => object },
  run: (db: ReturnType<typeof database>, person: Person, answer: Answer) => Promise<Response>,
): Promise<Response> {
  const answer: Answer = (body, status = 200) =>
    Response.json({ ...body, serverMs: now().getTime() }, { status, headers: { "cache-control": "no-store" } });
  if (!fromHere(request)) return answer({ ok: false, failure: { kind: "other-site" } }, 403);
  const who = await personWith("inspect");
  if (!who.ok) return answer({ ok: false, failure: who.refusal }, who.refusal.kind === "signed-out" ? 401 : 403);
  const said = request.headers.get("content-length");
  const bytes = said === null ? Number.NaN : Number(said);
  if (!(bytes <= most.bytes)) return answer({ ok: false, failure: most.refusal(bytes) }, 413);
  try {
    return await run(database(), who.person, answer);
  } catch (error) {
    log("error", "what a device sent failed", { error: errorText(error) });
    return answer({ ok: false, failure: { kind: "not-saved" } }, 503);
  }
}
