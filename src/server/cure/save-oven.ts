import type { Kysely } from "kysely";
import * as v from "valibot";
import type { Database } from "@/db/schema";
import { badEntry, filled, number, said, text } from "../input";
import { refuse } from "../outcome";
import { type SetupSaved, saveSetup } from "../setup/save-setup";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";

const side = number(100, 100_000);
const dataSchema = v.strictObject({
  name: filled(80),
  type: v.picklist(["batch", "conveyor", "lamps"]),
  heat: v.picklist(["gas-indirect", "gas-direct", "electric", "infrared"]),
  insideMm: v.nullable(v.strictObject({ lengthMm: side, widthMm: side, heightMm: side })),
  places: v.pipe(
    v.array(v.strictObject({ id: filled(20), at: v.tuple([number(0, 100), number(0, 100)]), note: text(80) })),
    v.maxLength(40, "are more than 40"),
  ),
  usualSetPointC: number(60, 400),
  mostSetPointC: number(60, 400),
  emptyTauS: number(5, 7200),
  fullTauS: number(5, 7200),
  fullKgSteel: number(1, 100_000),
  airAtDoorC: number(-20, 400),
  idleKw: number(0, 5000),
  efficiency: number(0.05, 1),
  spreadMostC: number(0.5, 100),
  recoveryMostS: number(10, 7200),
  zones: v.pipe(
    v.array(
      v.strictObject({
        name: filled(40),
        heat: v.picklist(["infrared", "convection"]),
        lengthM: number(0.1, 200),
        airC: number(20, 600),
        hWPerM2K: number(1, 500),
      }),
    ),
    v.maxLength(12, "are more than 12"),
  ),
  usualSpeedMPerMin: number(0.05, 20),
  pitchM: number(0.1, 20),
  habits: text(400),
  dedicated: v.boolean(),
});
const saveSchema = v.object({
  code: v.pipe(
    filled(20),
    v.regex(/^[A-Za-z0-9]+( [A-Za-z0-9]+)*$/, "is not letters and digits with single spaces between"),
  ),
  /** The version that was on screen; null for a new oven. */
  seen: v.nullable(v.pipe(v.string(), v.uuid("is not a version"))),
  reason: said(300, "is too short: name why it changes"),
  data: dataSchema,
});
/**
 * An oven set up, or changed from now on; bakes before are shown with the oven of their time. Failures: `bad-entry`,
 * `bad-oven` (field, value, why), those of `saveSetup`.
 */
export async function saveOven(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(saveSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { data } = parsed.output;
  const wrong = (field: string, value: unknown, why: string) => refuse({ kind: "bad-oven", field, value, why });
  if (data.usualSetPointC > data.mostSetPointC)
    return wrong("usual set point", data.usualSetPointC, `is over the most it may be set to, ${data.mostSetPointC}`);
  if (data.fullTauS < data.emptyTauS)
    return wrong("time constant full", data.fullTauS, `is under that of the empty oven, ${data.emptyTauS}`);
  if (data.type === "conveyor" && data.zones.length === 0)
    return wrong("zones", "", "are missing: a conveyor oven has one or more");
  if (!data.dedicated)
    return wrong("use", "", "is shared: an oven for powder is used for nothing else, least of all food");
  const ids = data.places.map((p) => p.id.toLowerCase());
  const twice = data.places.find((p, i) => ids.indexOf(p.id.toLowerCase()) !== i);
  if (twice) return wrong("places", twice.id, "is there twice");
  return saveSetup(db, person, "oven", parsed.output, clock);
}
