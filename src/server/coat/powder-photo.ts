import type { Kysely } from "kysely";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { cleanPhoto, keepPhoto } from "../photos/clean-photo";
import { addVersion } from "../setup/add-version";
import { byCode } from "../setup/by-code";
import type { SetupSaved } from "../setup/save-setup";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";

/**
 * A photo a lot is held against: the powder raw, or a panel of it cured; the one before stays with its version. Failures:
 * those of `cleanPhoto`, `unknown-set-up`, `bad-entry`.
 */
export async function savePowderPhoto(
  db: Kysely<Database>,
  person: Person,
  form: FormData,
  clock: Clock,
): Promise<SetupSaved> {
  const which = String(form.get("which") ?? "");
  if (which !== "raw" && which !== "cured")
    return refuse({ kind: "bad-entry", field: "which", value: which, why: "is neither raw nor cured" });
  const photo = await cleanPhoto(form.get("photo"));
  if (!photo.ok) return photo;
  const code = String(form.get("powder") ?? "");
  return write<SetupSaved>(db, [lock.setUp("powder")], clock, async (trx, at) => {
    const known = byCode((await setupAt(trx, "powder", at)).values(), code);
    if (!known) return refuse({ kind: "unknown-set-up", what: "powder", name: code });
    const fileId = await keepPhoto(trx, person, photo, at);
    const data = { ...known.data, photos: { ...known.data.photos, [which]: fileId } };
    const reason = which === "raw" ? "Photo of the powder raw" : "Photo of a panel cured";
    await addVersion<"powder">(trx, person, { entityId: known.id, at, reason, data });
    return { ok: true, code: known.code, already: false };
  });
}
