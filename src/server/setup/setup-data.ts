import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import type { Database } from "@/db/schema";
import { setupSchemas } from "./setup-schemas";

export type SetupKind = keyof typeof setupSchemas;
export type SetupData<K extends SetupKind> = v.InferOutput<(typeof setupSchemas)[K]>;
/** Set-up data as it is written: what has a default may be left out. */
export type SetupInput<K extends SetupKind> = v.InferInput<(typeof setupSchemas)[K]>;
/** What a powder's sheet says of its cure, as the core takes it. */
export const scheduleOfPowder = (
  data: Pick<SetupData<"powder">, "schedule" | "overbake" | "onsetC">,
): { points: typeof data.schedule; overbake: typeof data.overbake; onsetC: number | null } => ({
  points: data.schedule,
  overbake: data.overbake,
  onsetC: data.onsetC,
});
export type SetupItem<K extends SetupKind> = {
  readonly id: string;
  readonly code: string;
  readonly versionId: string;
  readonly validFrom: Date;
  readonly data: SetupData<K>;
};

/** Versions never change, so that a version once checked need not be checked again. */
const checked = new Map<string, unknown>();
function checkedData<K extends SetupKind>(kind: K, versionId: string, data: unknown): SetupData<K> {
  let known = checked.get(versionId);
  if (known === undefined) {
    known = v.parse(setupSchemas[kind], data);
    if (checked.size > 5000) checked.clear();
    checked.set(versionId, known);
  }
  return known as SetupData<K>;
}

/** Every item of a kind as it stood at a moment, keyed by id. One query; O(items). Throws where stored data no longer fits its schema. */
export async function setupAt<K extends SetupKind>(
  db: Kysely<Database>,
  kind: K,
  at: Date,
): Promise<Map<string, SetupItem<K>>> {
  const { rows } = await sql<{ id: string; code: string; version_id: string; valid_from: Date; data: unknown }>`
    select e.id, e.code, v.id as version_id, v.valid_from, v.data from setup_entity e
    cross join lateral (select * from setup_version where entity_id = e.id and valid_from <= ${at} order by valid_from desc, recorded_at desc limit 1) v
    where e.kind = ${kind} order by e.code`.execute(db);
  return new Map(
    rows.map((row) => [
      row.id,
      {
        id: row.id,
        code: row.code,
        versionId: row.version_id,
        validFrom: row.valid_from,
        data: checkedData(kind, row.version_id, row.data),
      },
    ]),
  );
}

/** The site's settings at a moment, with the version they are of. Throws when the site has none: nothing can be judged without them. */
export async function siteItemAt(db: Kysely<Database>, at: Date): Promise<SetupItem<"site">> {
  const [site] = (await setupAt(db, "site", at)).values();
  if (!site) throw new Error("no site settings are valid at this moment");
  return site;
}
/** As `siteItemAt`, the settings alone. */
export const siteAt = async (db: Kysely<Database>, at: Date): Promise<SetupData<"site">> =>
  (await siteItemAt(db, at)).data;
