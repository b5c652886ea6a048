import type { Kysely } from "kysely";
import * as v from "valibot";
import { markKinds } from "@/core/plan";
import type { Database } from "@/db/schema";
import { badEntry, text } from "../input";
import { refuse } from "../outcome";
import { type SetupSaved, saveSetup } from "../setup/save-setup";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";

const inputSchema = v.object({
  part: v.pipe(v.string(), v.uuid("is not a part")),
  /** The version of the part that was on screen. */
  seen: v.pipe(v.string(), v.uuid("is not a version")),
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

/**
 * Keeps the places set on a part's sketch as a new version of the part. Failures: `bad-entry`, `unknown-set-up`,
 * `unknown-spot` (a face it has not), `set-up-changed`.
 */
export async function keepMarks(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(inputSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues, "places"));
  const { part: id, seen, marks } = parsed.output;
  return saveSetup(
    db,
    person,
    "part",
    { code: null, id, seen, reason: "Hanging and masking planned", data: (part) => ({ ...part, marks }) },
    clock,
    {
      check: (_, __, known) => {
        const stray = marks.find((m) => !known?.data.faces.some((f) => f.id === m.face));
        return stray ? { kind: "unknown-spot", face: stray.face, spot: stray.kind, of: known?.data.name ?? "" } : null;
      },
    },
  );
}
