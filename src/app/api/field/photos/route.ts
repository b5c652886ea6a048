import { database } from "@/server/database";
import { addPhoto } from "@/server/field/add-photo";
import { errorText, log } from "@/server/log";
import { now } from "@/server/now";
import { MOST_PHOTO_BYTES } from "@/server/photos/clean-photo";
import { personWith } from "@/server/sign-in/person";
import { announced, fromHere } from "../same-site";

export const dynamic = "force-dynamic";

/** A photo from a device that may have been without a network: stored once, however often it is sent. */
export async function POST(request: Request): Promise<Response> {
  const answer = (body: object, status = 200) =>
    Response.json({ ...body, serverMs: now().getTime() }, { status, headers: { "cache-control": "no-store" } });
  if (!fromHere(request)) return answer({ ok: false, failure: { kind: "other-site" } }, 403);
  const who = await personWith("inspect");
  if (!who.ok) return answer({ ok: false, failure: who.refusal }, who.refusal.kind === "signed-out" ? 401 : 403);
  const bytes = announced(request);
  if (!(bytes <= MOST_PHOTO_BYTES + 64 * 1024))
    return answer(
      {
        ok: false,
        failure: {
          kind: "too-large",
          megabytes: Number.isNaN(bytes) ? "of unknown size, in" : Math.round(bytes / 1e5) / 10,
          mostMegabytes: MOST_PHOTO_BYTES / 1024 / 1024,
        },
      },
      413,
    );
  const form = await request.formData().catch(() => null);
  if (!form) return answer({ ok: false, failure: { kind: "empty-file" } }, 400);
  const by = String(form.get("by") ?? "");
  if (by !== who.person.username) return answer({ ok: false, failure: { kind: "somebody-elses", by } });
  try {
    return answer(await addPhoto(database(), who.person, form, now));
  } catch (error) {
    log("error", "captured photo failed", { error: errorText(error) });
    return answer({ ok: false, failure: { kind: "not-saved" } }, 503);
  }
}
