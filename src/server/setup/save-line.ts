import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { passagesFromSpeed } from "@/core/line";
import { passageStages } from "@/core/shorthand";
import type { Database } from "@/db/schema";
import { badEntry, filled, said } from "../input";
import { newId } from "../now";
import { canonicalText } from "../record/canonical";
import type { Person } from "../sign-in/roles";
import { addVersion, madeBy } from "./add-version";
import { type BathSaved, SETUP_LOCK } from "./save-bath";
import { setupAt } from "./setup-data";

const number = v.pipe(v.number("is not a number"), v.finite("is not a number"));
const lineSchema = v.object({
  code: v.pipe(filled(20), v.regex(/^[A-Za-z0-9][A-Za-z0-9 ]*$/, "is not letters, digits and spaces")),
  /** The version that was on screen; null for a line that is new. */
  seen: v.nullable(v.pipe(v.string(), v.uuid("is not a version"))),
  reason: said(300, "is too short: name why it changes"),
  data: v.strictObject({
    name: filled(60),
    usualSpeedMPerMin: number,
    stages: v.pipe(
      v.array(
        v.strictObject({
          stage: v.picklist(passageStages, "is not a stage of the line"),
          fromM: number,
          lengthM: number,
        }),
      ),
      v.minLength(1, "has no stage"),
      v.maxLength(12, "has more than 12 stages"),
    ),
  }),
});

/**
 * A conveyor line set up, or a new version of it from now on: its stages by their distance from its entrance, its usual
 * speed. Failures: `bad-entry`, those of `passagesFromSpeed` (`bad-input`, `stages-overlap`), `value-given-twice` (a
 * stage), `code-taken`, `unknown-set-up`, `set-up-changed`.
 */
export async function saveLine(db: Kysely<Database>, person: Person, input: unknown, at: Date): Promise<BathSaved> {
  const parsed = v.safeParse(lineSchema, input);
  if (!parsed.success) return { ok: false, failure: badEntry(parsed.issues) };
  const { code, seen, reason, data } = parsed.output;
  const names = data.stages.map((s) => s.stage);
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice) return { ok: false, failure: { kind: "value-given-twice", parameter: twice } };
  const runs = passagesFromSpeed(0, data.usualSpeedMPerMin, data.stages);
  if (!runs.ok) return { ok: false, failure: runs.error };
  return db.transaction().execute(async (trx): Promise<BathSaved> => {
    await sql`select pg_advisory_xact_lock(${SETUP_LOCK})`.execute(trx);
    const known = [...(await setupAt(trx, "line", at)).values()].find(
      (l) => l.code.toLowerCase() === code.toLowerCase(),
    );
    if (!seen && known) return { ok: false, failure: { kind: "code-taken", code: known.code } };
    if (seen && !known) return { ok: false, failure: { kind: "unknown-set-up", what: "line", name: code } };
    if (known && canonicalText(known.data) === canonicalText(data))
      return { ok: true, href: "/pretreat/set-up", already: true };
    if (known && known.versionId !== seen)
      return {
        ok: false,
        failure: { kind: "set-up-changed", by: await madeBy(trx, known.versionId), what: known.code },
      };
    const entityId = known?.id ?? newId();
    if (!known) await trx.insertInto("setup_entity").values({ id: entityId, kind: "line", code }).execute();
    await addVersion<"line">(trx, person, { entityId, at, reason, data });
    return { ok: true, href: "/pretreat/set-up", already: false };
  });
}
