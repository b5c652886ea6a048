import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { type SiteLimitName, siteLimitNames, siteLimits } from "@/core/site";
import { personName } from "@/db/queries/person-name";
import type { Database } from "@/db/schema";
import { badEntry, filled, said } from "../input";
import { refuse } from "../outcome";
import { type SetupSaved, saveSetup } from "../setup/save-setup";
import type { SetupKind } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";
import { shiftsSchema, workDaysSchema, zoneSchema } from "./begin-shop";

const versions = {
  seen: v.nullable(v.pipe(v.string(), v.uuid("is not a version"))),
  reason: said(300, "is too short: name why it changes"),
};
const number = (least: number, most: number) =>
  v.pipe(
    v.number("is not a number"),
    v.finite("is not a number"),
    v.minValue(least, `is under ${least}`),
    v.maxValue(most, `is over ${most}`),
  );
/** Another of its kind that is called the same. */
const sameName =
  (what: string, name: string) =>
  (_: unknown, all: readonly { id: string; data: { name: string } }[], known: { id: string } | undefined) =>
    all.some((item) => item.id !== known?.id && item.data.name.toLowerCase() === name.toLowerCase())
      ? { kind: "number-taken", what, number: name }
      : null;

const customerSchema = v.object({
  ...versions,
  code: v.nullable(filled(20)),
  data: v.strictObject({ name: filled(80) }),
});
/** A customer, under the next free number where new. Failures: `bad-entry`, `number-taken`, and those of saving what is set up. */
export async function saveCustomer(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(customerSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  return saveSetup(db, person, "customer", parsed.output, clock, {
    nextCode: async (trx) => {
      const { rows } = await sql<{ n: number }>`
        select coalesce(max(substr(code, 2)::int), 0)::int as n from setup_entity where kind = 'customer' and code ~ '^C[0-9]+$'`.execute(
        trx,
      );
      return `C${(rows[0]?.n ?? 0) + 1}`;
    },
    check: sameName("customer", parsed.output.data.name),
  });
}

export const instrumentKinds = ["film-gauge", "oven-recorder", "bath-meter", "gloss-meter", "other"] as const;
const instrumentSchema = v.object({
  ...versions,
  code: filled(20),
  data: v.strictObject({ name: filled(60), kind: v.picklist(instrumentKinds), serial: filled(40) }),
});
/** A gauge, recorder or meter, by the number that stands on it. Failures: `bad-entry`, `number-taken`, and those of saving what is set up. */
export async function saveInstrument(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(instrumentSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  return saveSetup(db, person, "instrument", parsed.output, clock, {
    check: sameName("instrument", parsed.output.data.name),
  });
}

export const roomRoles = ["booth", "oven", "washer", "blast-room", "cart", "hook", "rack"] as const;
const side = number(10, 30_000);
const roomSchema = v.object({
  ...versions,
  code: filled(20),
  data: v.strictObject({
    name: filled(60),
    role: v.picklist(roomRoles),
    insideMm: v.nullable(v.strictObject({ lengthMm: side, widthMm: side, heightMm: side })),
    mostKg: v.nullable(number(0.1, 50_000)),
  }),
});
/** A place a part must fit or hang from: its room and what it carries. Failures: `bad-entry`, `number-taken`, and those of saving what is set up. */
export async function saveRoom(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(roomSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  return saveSetup(db, person, "equipment", parsed.output, clock, {
    what: "place",
    check: sameName("place", parsed.output.data.name),
  });
}

const limits = Object.fromEntries(
  siteLimitNames.map((name) => [name, number(siteLimits[name].least, siteLimits[name].most)]),
) as Record<SiteLimitName, ReturnType<typeof number>>;
const siteSchema = v.object({
  ...versions,
  seen: v.pipe(v.string(), v.uuid("is not a version")),
  data: v.strictObject({
    name: filled(80),
    timeZone: zoneSchema,
    shifts: shiftsSchema,
    workDays: workDaysSchema,
    cureDecidedBy: v.picklist(["index", "hold"]),
    blastProfileUm: v.pipe(
      v.tuple([number(5, 300), number(5, 300)]),
      v.check(([from, to]) => from < to, "runs backwards: the lower one first"),
    ),
    warmStorageCounts: v.boolean(),
    gaugeSetOnSmooth: v.boolean(),
    ...limits,
  }),
});
/** The shop itself: its name, hours and limits, from now on. What was judged by the ones before stays so. Failures: `bad-entry`, and those of saving what is set up. */
export async function saveSite(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(siteSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { seen, reason, data } = parsed.output;
  return saveSetup(db, person, "site", { code: "site", seen, reason, data: (site) => ({ ...site, ...data }) }, clock, {
    what: "shop",
  });
}

/** Who set what up when and why, the newest first. */
export async function versionsOfKind(
  db: Kysely<Database>,
  kind: SetupKind,
): Promise<readonly { readonly code: string; readonly at: Date; readonly by: string; readonly reason: string }[]> {
  const rows = await db
    .selectFrom("setup_version")
    .innerJoin("setup_entity", "setup_entity.id", "setup_version.entity_id")
    .select(["setup_entity.code", "valid_from", "reason", personName("by_user").as("by")])
    .where("setup_entity.kind", "=", kind)
    .orderBy("valid_from", "desc")
    .limit(100)
    .execute();
  return rows.map((r) => ({ code: r.code, at: r.valid_from, by: r.by ?? "", reason: r.reason }));
}
