import { addPhoto } from "@/server/field/add-photo";
import { now } from "@/server/now";
import { MOST_PHOTO_BYTES } from "@/server/photos/clean-photo";
import { fromDevice } from "../from-device";

export const dynamic = "force-dynamic";
/** What a form has around its photo. */
const AROUND_BYTES = 64 * 1024;

/** A photo from a device that may have been without a network: stored once, however often it is sent. */
export const POST = (request: Request): Promise<Response> =>
  fromDevice(
    request,
    {
      bytes: MOST_PHOTO_BYTES + AROUND_BYTES,
      refusal: (bytes) => ({
        kind: "too-large",
        megabytes: Number.isNaN(bytes) ? "of unknown size, in" : Math.round(bytes / 1e5) / 10,
        mostMegabytes: MOST_PHOTO_BYTES / 1024 / 1024,
      }),
    },
    async (db, person, answer) => {
      const form = await request.formData().catch(() => null);
      if (!form) return answer({ ok: false, failure: { kind: "empty-file" } }, 400);
      const by = String(form.get("by") ?? "");
      if (by !== person.username) return answer({ ok: false, failure: { kind: "somebody-elses", by } });
      return answer(await addPhoto(db, person, form, now));
    },
  );
