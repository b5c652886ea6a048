import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import type { Failure } from "@/core/result";
import { checkUpkeep, type UpkeepStage, upkeepHands, upkeepStages, usualUpkeep } from "@/core/upkeep";
import type { Database } from "@/db/schema";
import { badEntry, filled, said, text } from "../input";
import { canonicalText } from "../record/canonical";
import { derivedId } from "../record/derived-id";
import { addVersion, madeBy } from "../setup/add-version";
import { SETUP_LOCK } from "../setup/save-bath";
import { type SetupInput, setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";

const limit = v.nullable(v.pipe(v.number("is not a number"), v.finite("is not a number")));
const saveSchema = v.object({
  /** Made once by the form, for what is new. */
  id: v.pipe(v.string(), v.uuid("is not an id")),
  /** What is changed; null for what is new. */
  code: v.nullable(filled(20)),
  seen: v.nullable(v.pipe(v.string(), v.uuid("is not a version"))),
  reason: said(300, "is too short: name why it changes"),
  data: v.strictObject({
    what: filled(60),
    stage: v.picklist(upkeepStages),
    everyDays: v.pipe(v.number("is not a number"), v.finite("is not a number")),
    look: text(300),
    leadsTo: text(200),
    caution: text(200),
    hands: v.picklist(upkeepHands),
    measure: v.nullable(v.strictObject({ name: filled(60), unit: text(12), lower: limit, upper: limit })),
    retired: v.boolean(),
  }),
});
export type UpkeepSaved =
  | { readonly ok: true; readonly code: string; readonly already: boolean }
  | { readonly ok: false; readonly failure: Failure };

/** Under the lock: the next free number. */
async function nextCode(trx: Kysely<Database>): Promise<string> {
  const { rows } = await sql<{ n: number }>`
    select coalesce(max(substr(code, 3)::int), 0)::int as n from setup_entity where kind = 'upkeep' and code ~ '^U-[0-9]+$'`.execute(
    trx,
  );
  return `U-${(rows[0]?.n ?? 0) + 1}`;
}

/**
 * An upkeep set up or changed from now on. Failures: `bad-entry`, `bad-upkeep` (field, value, why), `unknown-set-up`,
 * `set-up-changed` (by, what), `number-taken` where another upkeep has the same name.
 */
export async function saveUpkeep(db: Kysely<Database>, person: Person, input: unknown, at: Date): Promise<UpkeepSaved> {
  const parsed = v.safeParse(saveSchema, input);
  if (!parsed.success) return { ok: false, failure: badEntry(parsed.issues) };
  const { id, code, seen, reason, data } = parsed.output;
  const checked = checkUpkeep(data);
  if (!checked.ok) return { ok: false, failure: checked.error };
  return db.transaction().execute(async (trx): Promise<UpkeepSaved> => {
    await sql`select pg_advisory_xact_lock(${SETUP_LOCK})`.execute(trx);
    const all = [...(await setupAt(trx, "upkeep", at)).values()];
    const known = all.find((u) => (code === null ? u.id === id : u.code === code));
    if (code !== null && !known) return { ok: false, failure: { kind: "unknown-set-up", what: "upkeep", name: code } };
    if (known && canonicalText(known.data) === canonicalText(data))
      return { ok: true, code: known.code, already: true };
    const namesake = all.find(
      (u) => u.id !== known?.id && !u.data.retired && u.data.what.toLowerCase() === data.what.toLowerCase(),
    );
    if (namesake) return { ok: false, failure: { kind: "number-taken", what: "upkeep", number: data.what } };
    if (known && known.versionId !== seen)
      return {
        ok: false,
        failure: { kind: "set-up-changed", by: await madeBy(trx, known.versionId), what: known.code },
      };
    if (known) {
      await addVersion<"upkeep">(trx, person, { entityId: known.id, at, reason, data });
      return { ok: true, code: known.code, already: false };
    }
    return { ok: true, code: await keepNew(trx, person, id, data, reason, at), already: false };
  });
}

async function keepNew(
  trx: Kysely<Database>,
  person: Person,
  id: string,
  data: SetupInput<"upkeep">,
  reason: string,
  at: Date,
): Promise<string> {
  const code = await nextCode(trx);
  await trx.insertInto("setup_entity").values({ id, kind: "upkeep", code }).execute();
  await addVersion<"upkeep">(trx, person, { entityId: id, at, reason, data });
  return code;
}

const beginSchema = v.object({ id: v.pipe(v.string(), v.uuid("is not an id")), stage: v.picklist(upkeepStages) });
/** The usual upkeep of a stage, but for what is there under its name already. The same id sent twice is one. Failure: `bad-entry`. */
export async function beginUpkeep(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  at: Date,
): Promise<{ readonly ok: true; readonly added: number } | { readonly ok: false; readonly failure: Failure }> {
  const parsed = v.safeParse(beginSchema, input);
  if (!parsed.success) return { ok: false, failure: badEntry(parsed.issues) };
  const { id, stage } = parsed.output;
  return db.transaction().execute(async (trx) => {
    await sql`select pg_advisory_xact_lock(${SETUP_LOCK})`.execute(trx);
    const names = new Set([...(await setupAt(trx, "upkeep", at)).values()].map((u) => u.data.what.toLowerCase()));
    const missing = usualUpkeep.filter((u) => u.stage === stage && !names.has(u.what.toLowerCase()));
    for (const plan of missing)
      await keepNew(trx, person, derivedId(id, plan.what), { ...plan, retired: false }, "Begun from what is usual", at);
    return { ok: true as const, added: missing.length };
  });
}

/** The stages that lack some of what is usual. */
export const stagesToBegin = (names: readonly string[]): readonly UpkeepStage[] => {
  const there = new Set(names.map((n) => n.toLowerCase()));
  return upkeepStages.filter((s) => usualUpkeep.some((u) => u.stage === s && !there.has(u.what.toLowerCase())));
};
