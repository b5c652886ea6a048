import type { Kysely } from "kysely";
import * as v from "valibot";
import { passagesFromSpeed } from "@/core/line";
import { passageStages } from "@/core/shorthand";
import type { Database } from "@/db/schema";
import { badEntry, filled, said } from "../input";
import { refuse } from "../outcome";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";
import { type SetupSaved, saveSetup } from "./save-setup";

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
export async function saveLine(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(lineSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { data } = parsed.output;
  const names = data.stages.map((s) => s.stage);
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice) return refuse({ kind: "value-given-twice", parameter: twice });
  const runs = passagesFromSpeed(0, data.usualSpeedMPerMin, data.stages);
  if (!runs.ok) return refuse(runs.error);
  return saveSetup(db, person, "line", parsed.output, clock);
}
