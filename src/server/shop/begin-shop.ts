import "server-only";
import { hash } from "@node-rs/argon2";
import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { dateOrders } from "@/core/instrument-files";
import { type SiteLimitName, siteLimitNames, siteLimits, usualBlastProfile } from "@/core/site";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { badEntry, filled } from "../input";
import { newId } from "../now";
import { type Outcome, refuse } from "../outcome";
import { addEntity } from "../setup/save-setup";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";
import { addPerson, newPassword, userName } from "./people";

/** Whether nobody is of this shop yet: then the first page asks who is. */
export async function shopIsEmpty(db: Kysely<Database>): Promise<boolean> {
  const { rows } = await sql<{ empty: boolean }>`select not exists (select 1 from "user") as empty`.execute(db);
  return rows[0]?.empty ?? false;
}

const isZone = (zone: string): boolean => {
  try {
    new Intl.DateTimeFormat("en", { timeZone: zone });
    return true;
  } catch {
    return false;
  }
};
export const clockTime = v.pipe(
  v.string(),
  v.regex(/^([01]\d|2[0-3]):[0-5]\d$/, "is no time of day: type it as 06:00"),
);
export const zoneSchema = v.pipe(v.string(), v.check(isZone, "is no time zone: choose one from the list"));
export const shiftsSchema = v.pipe(
  v.array(v.object({ name: filled(30), from: clockTime })),
  v.minLength(1, "is missing: one shift at least"),
  v.maxLength(6, "are too many: six at most"),
  v.check((all) => new Set(all.map((s) => s.from)).size === all.length, "begin at one time: give each its own start"),
  v.check(
    (all) => new Set(all.map((s) => s.name.toLowerCase())).size === all.length,
    "have one name: give each its own",
  ),
);
export const workDaysSchema = v.pipe(
  v.array(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(7))),
  v.minLength(1, "is missing: one working day at least"),
  v.transform((days) => [...new Set(days)].sort()),
);
const schema = v.object({
  shop: filled(80),
  timeZone: zoneSchema,
  shifts: shiftsSchema,
  workDays: workDaysSchema,
  units: v.optional(v.picklist(["metric", "us"]), "metric"),
  decimalMark: v.optional(v.nullable(v.picklist([".", ","])), null),
  dateOrder: v.optional(v.nullable(v.picklist(dateOrders)), null),
  username: userName,
  name: filled(60),
  password: newPassword,
});

/**
 * A shop begun from nothing: its name, zone, shifts and working days, and its administrator. Only where nobody is there yet.
 * Failures: `bad-entry`, `shop-begun`.
 */
export async function beginShop(
  db: Kysely<Database>,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly username: string }>> {
  const parsed = v.safeParse(schema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { shop, timeZone, shifts, workDays, units, decimalMark, dateOrder, username, name, password } = parsed.output;
  // Nobody needs to sign in for this: the costly hash is not made for whoever comes too late.
  if (!(await shopIsEmpty(db))) return refuse({ kind: "shop-begun" });
  const passwordHash = await hash(password);
  return write<Outcome<{ readonly username: string }>>(
    db,
    [lock.people, lock.setUp("site")],
    clock,
    async (trx, at) => {
      if (!(await shopIsEmpty(trx))) return refuse({ kind: "shop-begun" });
      const made = { username, name, role: "administrator" as const, customerId: null };
      const id = await addPerson(trx, made, passwordHash, at);
      const person: Person = { id, ...made };
      await trx
        .insertInto("person_event")
        .values({ id: newId(), person_id: id, at, by_user: username, what: "made", note: "began the shop" })
        .execute();
      await addEntity(trx, person, {
        kind: "site",
        code: "site",
        at,
        reason: "The shop was begun",
        data: {
          name: shop,
          timeZone,
          shifts,
          workDays,
          units,
          decimalMark,
          dateOrder,
          cureDecidedBy: "index",
          blastProfileUm: [...usualBlastProfile.um],
          ...(Object.fromEntries(siteLimitNames.map((limit) => [limit, siteLimits[limit].usual])) as Record<
            SiteLimitName,
            number
          >),
        },
      });
      return { ok: true, username };
    },
  );
}
