import { database } from "@/server/database";
import { storeCaptured } from "@/server/field/captured";
import { errorText, log } from "@/server/log";
import { now } from "@/server/now";
import { personWith } from "@/server/sign-in/person";
import { announced, fromHere } from "../same-site";

export const dynamic = "force-dynamic";
/** A capture with all its readings is some kilobytes. */
const MOST_BYTES = 256 * 1024;
const tooLong = { kind: "bad-entry", field: "", why: "is too long", value: "" };

/** One capture from a device that may have been without a network: stored once, however often it is sent. Always says what time it is here. */
export async function POST(request: Request): Promise<Response> {
  const answer = (body: object, status = 200) =>
    Response.json({ ...body, serverMs: now().getTime() }, { status, headers: { "cache-control": "no-store" } });
  if (!fromHere(request)) return answer({ ok: false, failure: { kind: "other-site" } }, 403);
  const who = await personWith("inspect");
  if (!who.ok) return answer({ ok: false, failure: who.refusal }, who.refusal.kind === "signed-out" ? 401 : 403);
  if (!(announced(request) <= MOST_BYTES)) return answer({ ok: false, failure: tooLong }, 413);
  const text = await request.text();
  let input: unknown;
  try {
    input = JSON.parse(text);
  } catch {
    return answer({ ok: false, failure: { kind: "bad-entry", field: "", why: "is not JSON", value: "" } }, 400);
  }
  try {
    return answer(await storeCaptured(database(), who.person, input, now));
  } catch (error) {
    log("error", "capture failed", { error: errorText(error) });
    return answer({ ok: false, failure: { kind: "not-saved" } }, 503);
  }
}
