import type { Kysely } from "kysely";
import * as v from "valibot";
import { markKinds } from "@/core/plan";
import type { Database } from "@/db/schema";
import { badEntry, text } from "../input";
import { addVersion } from "../setup/add-version";
import { type SetupInput, setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";

const inputSchema = v.object({
  part: v.pipe(v.string(), v.uuid("is not a part")),
  marks: v.pipe(
    v.array(
      v.object({
        kind: v.picklist(markKinds),
        face: text(20),
        at: v.tuple([
          v.pipe(v.number(), v.minValue(0), v.maxValue(100)),
          v.pipe(v.number(), v.minValue(0), v.maxValue(100)),
        ]),
        note: text(120),
      }),
    ),
    v.maxLength(60, "are more than 60"),
  ),
});

/** Keeps the places set on a part's sketch as a new version of the part. Failures: `bad-entry`, `unknown-set-up`, `unknown-face`. */
export async function keepMarks(db: Kysely<Database>, person: Person, input: unknown, at: Date) {
  const parsed = v.safeParse(inputSchema, input);
  if (!parsed.success) return { ok: false as const, failure: badEntry(parsed.issues, "places") };
  const part = (await setupAt(db, "part", at)).get(parsed.output.part);
  if (!part) return { ok: false as const, failure: { kind: "unknown-set-up", what: "part", name: parsed.output.part } };
  const stray = parsed.output.marks.find((m) => !part.data.faces.some((f) => f.id === m.face));
  if (stray)
    return {
      ok: false as const,
      failure: { kind: "unknown-spot", face: stray.face, spot: stray.kind, of: part.data.name },
    };
  const data: SetupInput<"part"> = { ...part.data, marks: parsed.output.marks };
  await addVersion<"part">(db, person, { entityId: part.id, at, reason: "Hanging and masking planned", data });
  return { ok: true as const };
}
