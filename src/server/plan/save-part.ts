import type { Kysely } from "kysely";
import * as v from "valibot";
import {
  areaKinds,
  checkPart,
  checkSketch,
  type Face,
  markKinds,
  partFeatures,
  spotGroups,
  substrates,
  zones,
} from "@/core/plan";
import type { Database } from "@/db/schema";
import { badEntry, filled, said, text } from "../input";
import { refuse } from "../outcome";
import { type SetupSaved, saveSetup } from "../setup/save-setup";
import type { SetupInput } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";

const size = v.pipe(v.number("is not a number"), v.finite("is not a number"));
const place = v.tuple([size, size]);
const faceSchema = v.strictObject({
  id: filled(8),
  name: filled(40),
  outline: v.pipe(v.array(place), v.maxLength(100, "has more than 100 corners")),
  recessFromY: v.nullable(v.pipe(size, v.minValue(0, "is under 0"), v.maxValue(100, "is over 100"))),
  zone: v.picklist(zones),
  sizeMm: v.nullable(place),
  areas: v.pipe(
    v.array(v.strictObject({ kind: v.picklist(areaKinds), from: place, to: place, note: text(120) })),
    v.maxLength(30, "are more than 30"),
  ),
  spots: v.pipe(
    v.array(v.strictObject({ id: filled(12), at: place, note: text(120), group: v.picklist(spotGroups) })),
    v.maxLength(100, "are more than 100"),
  ),
});
const inputSchema = v.object({
  /** Made once by the form, for a part that is new: the same one sent twice is one. */
  id: v.optional(v.pipe(v.string(), v.uuid("is not an id"))),
  /** Null for a part that is new; its number is made from its name. */
  part: v.nullable(v.pipe(v.string(), v.uuid("is not a part"))),
  seen: v.nullable(v.pipe(v.string(), v.uuid("is not a version"))),
  reason: said(300, "is too short: name why it changes"),
  data: v.strictObject({
    name: filled(80),
    substrate: v.picklist(substrates, "is not a metal known here"),
    features: v.array(v.picklist(partFeatures)),
    thickestMm: size,
    measures: v.strictObject({
      box: v.strictObject({ lengthMm: size, widthMm: size, heightMm: size }),
      thinnestMm: size,
      massKg: size,
      areaM2: size,
      lapM: size,
      edgeM: v.pipe(size, v.minValue(0, "is under 0"), v.maxValue(10_000, "is over 10000")),
      assumed: v.array(text(40)),
    }),
    marks: v.pipe(
      v.array(v.strictObject({ kind: v.picklist(markKinds), face: text(20), at: place, note: text(120) })),
      v.maxLength(60, "are more than 60"),
    ),
    faces: v.array(faceSchema),
  }),
});

/** Faces of a sketch as they are set up. */
export const drawnFaces = (faces: readonly Face[]): SetupInput<"part">["faces"] =>
  faces.map((f) => ({
    ...f,
    outline: f.outline.map(([x, y]): [number, number] => [x, y]),
    sizeMm: f.sizeMm && [f.sizeMm[0], f.sizeMm[1]],
    areas: f.areas.map((a) => ({ ...a, from: [a.from[0], a.from[1]], to: [a.to[0], a.to[1]] })),
    spots: f.spots.map((s) => ({ ...s, at: [s.at[0], s.at[1]] })),
  }));

const codeOf = (name: string): string =>
  name
    .toUpperCase()
    .normalize("NFKD")
    .replace(/[^A-Z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 32) || "PART";

/** The number of a part that is new, made from its name; under the lock of the parts. */
export async function freePartCode(trx: Kysely<Database>, name: string): Promise<string> {
  const base = codeOf(name);
  const codes = await trx
    .selectFrom("setup_entity")
    .select("code")
    .where("kind", "=", "part")
    .where("code", "like", `${base}%`)
    .execute();
  const taken = new Set(codes.map((c) => c.code));
  let code = base;
  for (let n = 2; taken.has(code); n++) code = `${base}-${n}`;
  return code;
}

/**
 * Keeps a part as it was drawn and measured: a new one, or a new version from now on; what was judged by the one before
 * keeps it. Failures: `bad-entry`, those of `checkPart` and `checkSketch`, `unknown-spot` (a mark on a face it has not),
 * `number-taken`, and those of saving what is set up.
 */
export async function savePart(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved & { readonly href?: string }> {
  const parsed = v.safeParse(inputSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { id: fresh, part, seen, reason, data } = parsed.output;
  const id = part ?? fresh;
  const { name, substrate, features, thickestMm, measures } = data;
  const possible = checkPart({ substrate, features, thickestMm, ...measures });
  if (!possible.ok) return refuse(possible.error);
  const sketch = checkSketch(data.faces);
  if (!sketch.ok) return refuse(sketch.error);
  const stray = data.marks.find((m) => !data.faces.some((f) => f.id === m.face));
  if (stray) return refuse({ kind: "unknown-spot", face: stray.face, spot: stray.kind, of: name });
  const saved = await saveSetup(
    db,
    person,
    "part",
    { code: null, ...(id === undefined ? {} : { id }), seen, reason, data },
    clock,
    {
      nextCode: (trx) => freePartCode(trx, name),
      check: (_, all, known) =>
        all.some((p) => p.id !== known?.id && p.data.name.toLowerCase() === name.toLowerCase())
          ? { kind: "number-taken", what: "part", number: name }
          : null,
    },
  );
  return saved.ok ? { ...saved, href: `/plan/parts/${encodeURIComponent(saved.code)}` } : saved;
}
