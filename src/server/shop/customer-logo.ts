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
 * The customer's mark as it stands on their papers, or with `remove` none any more; papers made before keep theirs.
 * Failures: those of `cleanPhoto`, `unknown-set-up`.
 */
export async function saveCustomerLogo(
  db: Kysely<Database>,
  person: Person,
  form: FormData,
  clock: Clock,
): Promise<SetupSaved> {
  const remove = form.get("remove") === "yes";
  const photo = remove ? null : await cleanPhoto(form.get("photo"));
  if (photo && !photo.ok) return photo;
  const code = String(form.get("customer") ?? "");
  return write<SetupSaved>(db, [lock.setUp("customer")], clock, async (trx, at) => {
    const known = byCode((await setupAt(trx, "customer", at)).values(), code);
    if (!known) return refuse({ kind: "unknown-set-up", what: "customer", name: code });
    if (!photo && known.data.paper.logo === null) return { ok: true, code: known.code, already: true };
    const logo = photo ? await keepPhoto(trx, person, photo, at) : null;
    const data = { ...known.data, paper: { ...known.data.paper, logo } };
    const reason = logo ? "Their mark for their papers" : "No mark on their papers any more";
    await addVersion<"customer">(trx, person, { entityId: known.id, at, reason, data });
    return { ok: true, code: known.code, already: false };
  });
}
