import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { adhesionScales } from "@/core/bench";
import { dateOrders } from "@/core/instrument-files";
import {
  type AcceptanceClass,
  acceptanceBounds,
  currencies,
  equipmentRoles,
  type SchoolName,
  type SchoolTexts,
  type SiteLimitName,
  type SiteRateName,
  schoolChoices,
  schoolNames,
  schoolsOf,
  schoolTexts,
  siteLimitNames,
  siteLimits,
  siteRateNames,
  siteRates,
  strictestOutOfSight,
  wrongFact,
} from "@/core/site";
import { personName } from "@/db/queries/person-name";
import type { Database } from "@/db/schema";
import { badEntry, filled, number, said, text, whole } from "../input";
import { refuse } from "../outcome";
import { type SetupSaved, saveSetup } from "../setup/save-setup";
import type { SetupData, SetupKind } from "../setup/setup-data";
import { setupSchemas } from "../setup/setup-schemas";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";
import { clockTime, shiftsSchema, workDaysSchema, zoneSchema } from "./begin-shop";

const versions = {
  seen: v.nullable(v.pipe(v.string(), v.uuid("is not a version"))),
  reason: said(300, "is too short: name why it changes"),
};
/** Another of its kind that is called the same. */
const sameName =
  (what: string, name: string) =>
  (_: unknown, all: readonly { id: string; data: { name: string } }[], known: { id: string } | undefined) =>
    all.some((item) => item.id !== known?.id && item.data.name.toLowerCase() === name.toLowerCase())
      ? { kind: "number-taken", what, number: name }
      : null;

const classSchema = v.strictObject(
  Object.fromEntries(
    Object.entries(acceptanceBounds).map(([name, [least, most]]) => [name, number(least, most)]),
  ) as Record<keyof AcceptanceClass, ReturnType<typeof number>>,
);
const customerSchema = v.object({
  ...versions,
  code: v.nullable(filled(20)),
  data: v.strictObject({
    name: filled(80),
    address: text(300),
    deliverTo: text(300),
    contact: text(200),
    wording: v.optional(text(1200), ""),
    acceptance: v.nullable(
      v.pipe(
        v.strictObject({ A: classSchema, B: classSchema, C: classSchema }),
        v.check(
          (classes) => strictestOutOfSight(classes) === null,
          "is stricter out of sight than in plain sight: zone A is the strictest",
        ),
      ),
    ),
  }),
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
  const { wording, ...said } = parsed.output.data;
  // Their mark is put on by its own form, and stays.
  const data = (now: SetupData<"customer"> | null) => ({
    ...said,
    paper: { wording, logo: now?.paper.logo ?? null },
  });
  const made = { ...parsed.output, data: parsed.output.code === null ? data(null) : data };
  return saveSetup(db, person, "customer", made, clock, {
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
  data: v.strictObject({
    name: filled(60),
    kind: v.picklist(instrumentKinds),
    serial: filled(40),
    verifyEveryDays: v.nullable(whole(1, 3660)),
    verifiedOn: v.nullable(v.pipe(v.string(), v.isoDate("is not a date"))),
    certificate: text(60),
    retired: v.boolean(),
  }),
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

const side = number(10, 30_000);
const equipmentSchema = v.object({
  ...versions,
  code: filled(20),
  data: v.strictObject({
    name: filled(60),
    role: v.picklist(equipmentRoles),
    insideMm: v.nullable(v.strictObject({ lengthMm: side, widthMm: side, heightMm: side })),
    mostKg: v.nullable(number(0.1, 50_000)),
    facts: v.record(text(40), v.union([v.number(), text(200)])),
    retired: v.boolean(),
  }),
});
/**
 * Equipment: a place with its room, what carries, guns, air, lines; what is noted of its kind. Failures: `bad-entry`,
 * `number-taken`, and those of saving what is set up.
 */
export async function saveEquipment(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(equipmentSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { data } = parsed.output;
  const wrong = wrongFact(data.role, data.facts);
  if (wrong) return refuse({ kind: "bad-entry", field: wrong.label, value: wrong.value, why: wrong.why });
  return saveSetup(db, person, "equipment", parsed.output, clock, {
    what: "equipment",
    check: sameName("equipment", data.name),
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
    adhesionScale: v.optional(v.picklist(adhesionScales), "iso"),
    blastProfileUm: v.pipe(
      v.tuple([number(5, 300), number(5, 300)]),
      v.check(([from, to]) => from < to, "runs backwards: the lower one first"),
    ),
    warmStorageCounts: v.boolean(),
    gaugeSetOnSmooth: v.boolean(),
    units: v.picklist(["metric", "us"]),
    decimalMark: v.nullable(v.picklist([".", ","])),
    dateOrder: v.nullable(v.picklist(dateOrders)),
    workStartsAt: clockTime,
    gaugeTolerance: v.strictObject({ um: number(0, 50), percent: number(0, 20) }),
    bareLimits: v.pipe(
      v.array(v.strictObject({ upToHumidityPercent: number(1, 100), hours: number(0.1, 168) })),
      v.maxLength(10, "are more than ten"),
      v.check(
        (all) => all.every((l, i) => i === 0 || l.upToHumidityPercent > (all[i - 1]?.upToHumidityPercent ?? 0)),
        "are out of order: the driest first, each humidity once",
      ),
    ),
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

const rateSchema = v.object({
  ...versions,
  seen: v.pipe(v.string(), v.uuid("is not a version")),
  data: v.strictObject({
    currency: v.picklist(currencies),
    ...(Object.fromEntries(
      siteRateNames.map((name) => [name, number(siteRates[name].least, siteRates[name].most)]),
    ) as Record<SiteRateName, ReturnType<typeof number>>),
  }),
});
/** What a price is made of, from now on; offers made before keep theirs. Failures: `bad-entry`, and those of saving what is set up. */
export async function saveRates(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(rateSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { seen, reason, data: rates } = parsed.output;
  return saveSetup(db, person, "site", { code: "site", seen, reason, data: (site) => ({ ...site, rates }) }, clock, {
    what: "shop",
  });
}

const schoolSchema = v.object({
  ...versions,
  seen: v.pipe(v.string(), v.uuid("is not a version")),
  data: v.strictObject(
    Object.fromEntries(
      schoolNames.map((name) => [name, v.picklist(Object.keys(schoolChoices[name].options))]),
    ) as unknown as { [N in SchoolName]: v.GenericSchema<SchoolTexts[N]> },
  ),
});
/** Which way the shop does what good shops do differently; plans made before keep theirs. Failures: `bad-entry`, and those of saving what is set up. */
export async function saveSchools(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(schoolSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { seen, reason, data } = parsed.output;
  const schools = schoolsOf(data);
  return saveSetup(db, person, "site", { code: "site", seen, reason, data: (site) => ({ ...site, schools }) }, clock, {
    what: "shop",
  });
}

/** Who set a figure of the shop last: each by its name, those in `rates` and `schools` by theirs; only what was changed since it began. */
export type FigureChanges = ReadonlyMap<string, { readonly by: string; readonly at: Date; readonly reason: string }>;
/** Who changed which figure of the shop last, and why. One query; O(versions × figures). */
export async function figureChanges(db: Kysely<Database>): Promise<FigureChanges> {
  const rows = await db
    .selectFrom("setup_version")
    .innerJoin("setup_entity", "setup_entity.id", "setup_version.entity_id")
    .select(["setup_version.data", "valid_from", "recorded_at", "reason", personName("by_user").as("by")])
    .where("setup_entity.kind", "=", "site")
    .orderBy("valid_from")
    .orderBy("recorded_at")
    .execute();
  const changes = new Map<string, { by: string; at: Date; reason: string }>();
  let before: Record<string, unknown> | null = null;
  for (const row of rows) {
    const { rates, schools, ...own } = v.parse(setupSchemas.site, row.data);
    const flat: Record<string, unknown> = { ...own, ...rates, ...(schools && schoolTexts(schools)) };
    if (before)
      for (const [name, value] of Object.entries(flat))
        if (JSON.stringify(before[name]) !== JSON.stringify(value))
          changes.set(name, { by: row.by ?? "", at: row.recorded_at, reason: row.reason });
    before = flat;
  }
  return changes;
}

/** Who set what up when and why, the newest first. */
export async function versionsOfKind(
  db: Kysely<Database>,
  kind: SetupKind,
): Promise<readonly { readonly code: string; readonly at: Date; readonly by: string; readonly reason: string }[]> {
  const rows = await db
    .selectFrom("setup_version")
    .innerJoin("setup_entity", "setup_entity.id", "setup_version.entity_id")
    .select(["setup_entity.code", "recorded_at", "reason", personName("by_user").as("by")])
    .where("setup_entity.kind", "=", kind)
    .orderBy("recorded_at", "desc")
    .limit(100)
    .execute();
  return rows.map((r) => ({ code: r.code, at: r.recorded_at, by: r.by ?? "", reason: r.reason }));
}
