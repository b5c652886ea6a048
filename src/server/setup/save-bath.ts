import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { bathParameters, bathRoles, bathSlug, checkBath, takenSlugs, washTemplates } from "@/core/bath";
import type { Failure } from "@/core/result";
import { passageStages } from "@/core/shorthand";
import type { Database } from "@/db/schema";
import { badEntry, filled, said, text } from "../input";
import { newId } from "../now";
import { canonicalText } from "../record/canonical";
import { derivedId } from "../record/derived-id";
import type { Person } from "../sign-in/roles";
import { addVersion, madeBy } from "./add-version";
import { recipes, type SetupInput, setupAt } from "./setup-data";

const number = v.pipe(v.number("is not a number"), v.finite("is not a number"));
const maybe = v.nullable(number);
const window = v.strictObject({
  lower: maybe,
  upper: maybe,
  watchLower: maybe,
  watchUpper: maybe,
  roundHours: v.optional(maybe, null),
  reaction: v.nullable(v.strictObject({ what: text(300), recheckMinutes: number })),
});
const dataSchema = v.strictObject({
  name: filled(60),
  stage: v.picklist(passageStages, "is not a stage of the line"),
  role: v.picklist(bathRoles),
  volumeL: number,
  freeboardL: number,
  stepL: number,
  maxSingleL: maybe,
  roundHours: number,
  windows: v.record(v.picklist(bathParameters, "is not a value known here"), window),
  titrationFactorPercentPerMl: maybe,
  recipes: v.optional(recipes, {}),
  concentratePercent: maybe,
  product: text(80),
  targetPercent: maybe,
  targetPh: maybe,
  phChangePerLPerM3: maybe,
  acidProduct: text(80),
  otherProducts: v.optional(v.pipe(v.array(filled(80)), v.maxLength(8, "are more than 8")), []),
  caution: text(300),
  contactS: v.nullable(v.tuple([number, number])),
  weightGPerM2: v.optional(v.nullable(v.tuple([number, number])), null),
  retired: v.boolean(),
});
const saveSchema = v.object({
  code: v.pipe(
    filled(20),
    v.regex(/^[A-Za-z0-9]+( [A-Za-z0-9]+)*$/, "is not letters and digits with single spaces between"),
    v.check((code) => !takenSlugs.includes(bathSlug(code)), "is what a view of the wash is called already"),
  ),
  /** The version that was on screen; null for a bath that is new. */
  seen: v.nullable(v.pipe(v.string(), v.uuid("is not a version"))),
  reason: said(300, "is too short: name why it changes"),
  data: dataSchema,
});
const startSchema = v.object({
  /** Made once by the button: pressed twice it is one. */
  id: v.pipe(v.string(), v.uuid("is not an id")),
  template: filled(40),
});
export type BathSaved =
  | { readonly ok: true; readonly href: string; readonly already: boolean }
  | { readonly ok: false; readonly failure: Failure };
const refuse = (failure: Failure): BathSaved => ({ ok: false, failure });
export const bathHref = (code: string): string => `/pretreat/${bathSlug(code)}`;
/** One change of the set-up at a time, so that two people do not both build on the same version. */
export const SETUP_LOCK = 7206003;

/**
 * A bath set up, or a new version of it from now on; older checks are judged by the version of their time. Failures:
 * `bad-entry`, `bad-bath` (field, value, why), `code-taken`, `unknown-set-up`, `changed-meanwhile` (by).
 */
export async function saveBath(db: Kysely<Database>, person: Person, input: unknown, at: Date): Promise<BathSaved> {
  const parsed = v.safeParse(saveSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { code, seen, reason, data } = parsed.output;
  const checked = checkBath(data as SetupInput<"bath"> & typeof data);
  if (!checked.ok) return refuse(checked.error);
  return db.transaction().execute(async (trx): Promise<BathSaved> => {
    await sql`select pg_advisory_xact_lock(${SETUP_LOCK})`.execute(trx);
    const known = [...(await setupAt(trx, "bath", at)).values()].find(
      (b) => b.code.toLowerCase() === code.toLowerCase(),
    );
    if (!seen && known) return refuse({ kind: "code-taken", code: known.code });
    if (seen && !known) return refuse({ kind: "unknown-set-up", what: "bath", name: code });
    const same = known && canonicalText(known.data) === canonicalText(data);
    if (same) return { ok: true, href: bathHref(known.code), already: true };
    if (known && known.versionId !== seen)
      return refuse({ kind: "set-up-changed", by: await madeBy(trx, known.versionId), what: known.code });
    await keep(trx, person, known?.id ?? null, code, data, reason, at);
    return { ok: true, href: bathHref(code), already: false };
  });
}

/**
 * The baths of a usual wash, added behind those there are, each under the next free number. Failures: `bad-entry`, `unknown-set-up`.
 * The same id sent twice is one. What is usual is only a beginning: each is to be put right by the supplier's sheet.
 */
export async function startWash(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  at: Date,
): Promise<
  { readonly ok: true; readonly codes: readonly string[] } | { readonly ok: false; readonly failure: Failure }
> {
  const parsed = v.safeParse(startSchema, input);
  if (!parsed.success) return { ok: false, failure: badEntry(parsed.issues) };
  const { id, template: templateId } = parsed.output;
  const template = washTemplates.find((t) => t.id === templateId);
  if (!template) return { ok: false, failure: { kind: "unknown-set-up", what: "wash", name: templateId } };
  return db.transaction().execute(async (trx) => {
    await sql`select pg_advisory_xact_lock(${SETUP_LOCK})`.execute(trx);
    const taken = new Set([...(await setupAt(trx, "bath", at)).values()].map((b) => b.code.toLowerCase()));
    const ids = template.baths.map((_, i) => derivedId(id, `bath:${i}`));
    // Sent again, after an answer that was lost, it finds its tanks there.
    const there = await trx.selectFrom("setup_entity").select(["id", "code"]).where("id", "in", ids).execute();
    if (there.length > 0)
      return { ok: true as const, codes: ids.map((x) => there.find((t) => t.id === x)?.code ?? "") };
    const codes: string[] = [];
    let next = 1;
    for (const [i, bath] of template.baths.entries()) {
      while (taken.has(`tank ${next}`)) next++;
      const code = `Tank ${next}`;
      taken.add(code.toLowerCase());
      const data = { ...bath, name: `${code} ${bath.name}`, retired: false } as SetupInput<"bath">;
      await trx
        .insertInto("setup_entity")
        .values({ id: ids[i] as string, kind: "bath", code })
        .execute();
      await keep(trx, person, ids[i] as string, code, data, `Begun from a usual wash: ${template.name}`, at);
      codes.push(code);
    }
    return { ok: true as const, codes };
  });
}

async function keep(
  trx: Kysely<Database>,
  person: Person,
  entityId: string | null,
  code: string,
  data: SetupInput<"bath">,
  reason: string,
  at: Date,
): Promise<void> {
  const id = entityId ?? newId();
  if (!entityId) await trx.insertInto("setup_entity").values({ id, kind: "bath", code }).execute();
  await addVersion<"bath">(trx, person, { entityId: id, at, reason, data });
}

export type BathVersion = { readonly at: Date; readonly by: string; readonly reason: string };
/** The versions of a bath, newest first. */
export async function bathVersions(db: Kysely<Database>, bathId: string): Promise<readonly BathVersion[]> {
  const rows = await db
    .selectFrom("setup_version")
    .select(["valid_from", "by_user", "reason"])
    .where("entity_id", "=", bathId)
    .orderBy("valid_from", "desc")
    .limit(20)
    .execute();
  return rows.map((r) => ({ at: r.valid_from, by: r.by_user, reason: r.reason }));
}
