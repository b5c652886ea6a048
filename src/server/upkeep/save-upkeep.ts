import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { checkUpkeep, type UpkeepStage, upkeepHands, upkeepStages, usualUpkeep } from "@/core/upkeep";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { badEntry, filled, said, text } from "../input";
import { type Outcome, refuse } from "../outcome";
import { derivedId } from "../record/derived-id";
import { addEntity, type SetupSaved, saveSetup } from "../setup/save-setup";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";

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
    equipment: v.optional(v.nullable(filled(20)), null),
    measure: v.nullable(v.strictObject({ name: filled(60), unit: text(12), lower: limit, upper: limit })),
    retired: v.boolean(),
  }),
});
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
export async function saveUpkeep(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(saveSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { data } = parsed.output;
  const checked = checkUpkeep(data);
  if (!checked.ok) return refuse(checked.error);
  return saveSetup(db, person, "upkeep", parsed.output, clock, {
    nextCode,
    check: (_, all, known) =>
      all.some(
        (u) =>
          u.id !== known?.id &&
          !u.data.retired &&
          u.data.equipment === data.equipment &&
          u.data.what.toLowerCase() === data.what.toLowerCase(),
      )
        ? { kind: "number-taken", what: "upkeep", number: data.what }
        : null,
  });
}

const beginSchema = v.object({ id: v.pipe(v.string(), v.uuid("is not an id")), stage: v.picklist(upkeepStages) });
/** The usual upkeep of a stage, but for what is there under its name already. The same id sent twice is one. Failure: `bad-entry`. */
export async function beginUpkeep(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly added: number }>> {
  const parsed = v.safeParse(beginSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { id, stage } = parsed.output;
  return write(db, [lock.setUp("upkeep")], clock, async (trx, at) => ({
    ok: true as const,
    added: await addUsualUpkeep(trx, person, stage, id, at),
  }));
}

/** The usual upkeep of a stage, under the lock of upkeep, but for what is there under its name already; how many. */
export async function addUsualUpkeep(
  trx: Kysely<Database>,
  person: Person,
  stage: UpkeepStage,
  id: string,
  at: Date,
): Promise<number> {
  const names = new Set([...(await setupAt(trx, "upkeep", at)).values()].map((u) => u.data.what.toLowerCase()));
  const missing = usualUpkeep.filter((u) => u.stage === stage && !names.has(u.what.toLowerCase()));
  for (const plan of missing)
    await addEntity<"upkeep">(trx, person, {
      id: derivedId(id, plan.what),
      kind: "upkeep",
      code: await nextCode(trx),
      at,
      reason: "Begun from what is usual",
      data: { ...plan, retired: false },
    });
  return missing.length;
}

/** The stages that lack some of what is usual. */
export const stagesToBegin = (names: readonly string[]): readonly UpkeepStage[] => {
  const there = new Set(names.map((n) => n.toLowerCase()));
  return upkeepStages.filter((s) => usualUpkeep.some((u) => u.stage === s && !there.has(u.what.toLowerCase())));
};
