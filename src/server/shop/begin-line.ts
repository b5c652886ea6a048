import type { Kysely } from "kysely";
import * as v from "valibot";
import { washTemplates } from "@/core/bath";
import { lineTemplates, type TemplateOven } from "@/core/site";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { badEntry, filled } from "../input";
import { type Outcome, refuse } from "../outcome";
import { derivedId } from "../record/derived-id";
import { addWash } from "../setup/save-bath";
import { addEntity } from "../setup/save-setup";
import { type SetupInput, type SetupKind, setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { addUsualUpkeep } from "../upkeep/save-upkeep";
import { type Clock, write } from "../write";

const schema = v.object({
  /** Made once by the button: pressed twice it is one. */
  id: v.pipe(v.string(), v.uuid("is not an id")),
  template: filled(40),
});
/** Air and metal of a hot convection zone, W/m²K, until the oven's own bakes teach it. */
const USUAL_H = 27;
const ovenData = (oven: TemplateOven): SetupInput<"oven"> => ({
  name: oven.name,
  type: oven.type,
  heat: oven.heat,
  insideMm: oven.insideMm,
  places: oven.places.map((p) => ({ id: p.id, at: [p.at[0], p.at[1]], note: p.note })),
  zones: oven.zones.map((z) => ({ ...z, heat: "convection", hWPerM2K: USUAL_H })),
});

export type LineBegun = {
  readonly baths: number;
  readonly equipment: number;
  readonly ovens: number;
  readonly upkeep: number;
};

/**
 * A line as shops commonly have it, all of it or nothing: tanks, equipment, ovens, conveyor, usual upkeep. What is there
 * under its name already stays as it is. The same id sent twice is one. Failures: `bad-entry`, `unknown-set-up`.
 */
export async function beginLine(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<LineBegun>> {
  const parsed = v.safeParse(schema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { id, template: asked } = parsed.output;
  const template = lineTemplates.find((t) => t.id === asked);
  const wash = washTemplates.find((t) => t.id === template?.wash);
  if (!template || !wash) return refuse({ kind: "unknown-set-up", what: "line", name: asked });
  const kinds = ["bath", "equipment", "oven", "line", "upkeep"] as const;
  return write(db, kinds.map(lock.setUp), clock, async (trx, at) => {
    const reason = `Begun from a usual line: ${template.name}`;
    /** Those of a kind that are not there yet, by their code. */
    const add = async <K extends SetupKind>(kind: K, all: readonly { code: string; data: SetupInput<K> }[]) => {
      const there = new Set([...(await setupAt(trx, kind, at)).values()].map((e) => e.code.toLowerCase()));
      const missing = all.filter(({ code }) => !there.has(code.toLowerCase()));
      for (const { code, data } of missing)
        await addEntity<K>(trx, person, { id: derivedId(id, `${kind}:${code}`), kind, code, at, reason, data });
      return missing.length;
    };
    const baths = await addWash(trx, person, wash, id, at);
    const equipment = await add(
      "equipment",
      template.equipment.map(({ code, ...data }) => ({ code, data: { ...data, facts: { ...data.facts } } })),
    );
    const ovens = await add(
      "oven",
      template.ovens.map((oven) => ({ code: oven.code, data: ovenData(oven) })),
    );
    if (template.conveyor)
      await add("line", [
        {
          code: "L1",
          data: { name: "Washer", usualSpeedMPerMin: 1.2, stages: template.conveyor.map((s) => ({ ...s })) },
        },
      ]);
    let upkeep = 0;
    for (const stage of template.upkeep) upkeep += await addUsualUpkeep(trx, person, stage, id, at);
    return { ok: true, baths: baths.length, equipment, ovens, upkeep };
  });
}
