import type { Kysely } from "kysely";
import * as v from "valibot";
import type { Database } from "@/db/schema";
import { badEntry, filled, said, text } from "../input";
import { refuse } from "../outcome";
import { type SetupSaved, saveSetup } from "../setup/save-setup";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";

const within = (least: number, most: number) =>
  v.pipe(
    v.number("is not a number"),
    v.finite("is not a number"),
    v.minValue(least, `is under ${least}`),
    v.maxValue(most, `is over ${most}`),
  );
const side = within(100, 100_000);
const dataSchema = v.strictObject({
  name: filled(80),
  type: v.picklist(["batch", "conveyor", "lamps"]),
  heat: v.picklist(["gas-indirect", "gas-direct", "electric", "infrared"]),
  insideMm: v.nullable(v.strictObject({ lengthMm: side, widthMm: side, heightMm: side })),
  places: v.pipe(
    v.array(v.strictObject({ id: filled(20), at: v.tuple([within(0, 100), within(0, 100)]), note: text(80) })),
    v.maxLength(40, "are more than 40"),
  ),
  usualSetPointC: within(60, 400),
  mostSetPointC: within(60, 400),
  emptyTauS: within(5, 7200),
  fullTauS: within(5, 7200),
  fullKgSteel: within(1, 100_000),
  airAtDoorC: within(-20, 400),
  idleKw: within(0, 5000),
  efficiency: within(0.05, 1),
  spreadMostC: within(0.5, 100),
  recoveryMostS: within(10, 7200),
  zones: v.pipe(
    v.array(
      v.strictObject({
        name: filled(40),
        heat: v.picklist(["infrared", "convection"]),
        lengthM: within(0.1, 200),
        airC: within(20, 600),
        hWPerM2K: within(1, 500),
      }),
    ),
    v.maxLength(12, "are more than 12"),
  ),
  usualSpeedMPerMin: within(0.05, 20),
  pitchM: within(0.1, 20),
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
