import type { Kysely } from "kysely";
import * as v from "valibot";
import {
  bathParameters,
  bathRoles,
  bathSlug,
  checkBath,
  takenSlugs,
  type WashTemplate,
  washTemplates,
} from "@/core/bath";
import { passageStages } from "@/core/shorthand";
import { lock } from "@/db/queries/locks";
import { personName } from "@/db/queries/person-name";
import type { Database } from "@/db/schema";
import { badEntry, filled, said, text } from "../input";
import { type Outcome, refuse } from "../outcome";
import { derivedId } from "../record/derived-id";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";
import { addEntity, saveSetup } from "./save-setup";
import { recipes } from "./schemas/bath";
import { type SetupInput, setupAt } from "./setup-data";

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
  moves: v.optional(v.record(v.pipe(v.string(), v.maxLength(80)), v.array(v.picklist(bathParameters))), {}),
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

export const bathHref = (code: string): string => `/pretreat/${bathSlug(code)}`;

/**
 * A bath set up, or a new version of it from now on; older checks are judged by the version of their time. Failures:
 * `bad-entry`, `bad-bath` (field, value, why), those of `saveSetup`.
 */
export async function saveBath(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly href: string; readonly already: boolean }>> {
  const parsed = v.safeParse(saveSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { data } = parsed.output;
  const checked = checkBath(data as SetupInput<"bath"> & typeof data);
  if (!checked.ok) return refuse(checked.error);
  const saved = await saveSetup(db, person, "bath", parsed.output, clock);
  return saved.ok ? { ok: true, href: bathHref(saved.code), already: saved.already } : saved;
}

/**
 * The baths of a usual wash, added behind those there are, each under the next free number. Failures: `bad-entry`, `unknown-set-up`.
 * The same id sent twice is one. What is usual is only a beginning: each is to be put right by the supplier's sheet.
 */
export async function startWash(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly codes: readonly string[] }>> {
  const parsed = v.safeParse(startSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { id, template: templateId } = parsed.output;
  const template = washTemplates.find((t) => t.id === templateId);
  if (!template) return refuse({ kind: "unknown-set-up", what: "wash", name: templateId });
  return write(db, [lock.setUp("bath")], clock, async (trx, at) => ({
    ok: true as const,
    codes: await addWash(trx, person, template, id, at),
  }));
}

/** The tanks of a usual wash, under the lock of baths, each under the next free number. The same id again finds them there. */
export async function addWash(
  trx: Kysely<Database>,
  person: Person,
  template: WashTemplate,
  id: string,
  at: Date,
): Promise<readonly string[]> {
  const taken = new Set([...(await setupAt(trx, "bath", at)).values()].map((b) => b.code.toLowerCase()));
  const ids = template.baths.map((_, i) => derivedId(id, `bath:${i}`));
  // Sent again, after an answer that was lost, it finds its tanks there.
  const there = await trx.selectFrom("setup_entity").select(["id", "code"]).where("id", "in", ids).execute();
  if (there.length > 0) return ids.map((x) => there.find((t) => t.id === x)?.code ?? "");
  const codes: string[] = [];
  let next = 1;
  for (const [i, bath] of template.baths.entries()) {
    while (taken.has(`tank ${next}`)) next++;
    const code = `Tank ${next}`;
    taken.add(code.toLowerCase());
    const data = { ...bath, name: `${code} ${bath.name}`, retired: false } as SetupInput<"bath">;
    const reason = `Begun from a usual wash: ${template.name}`;
    await addEntity<"bath">(trx, person, { id: ids[i], kind: "bath", code, at, reason, data });
    codes.push(code);
  }
  return codes;
}

export type BathVersion = { readonly at: Date; readonly by: string; readonly reason: string };
/** The versions of a bath, newest first. */
export async function bathVersions(db: Kysely<Database>, bathId: string): Promise<readonly BathVersion[]> {
  const rows = await db
    .selectFrom("setup_version")
    .select(["recorded_at", personName("by_user").as("by_user"), "reason"])
    .where("entity_id", "=", bathId)
    .orderBy("valid_from", "desc")
    .limit(20)
    .execute();
  return rows.map((r) => ({ at: r.recorded_at, by: r.by_user, reason: r.reason }));
}
