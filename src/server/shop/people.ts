import "server-only";
import { randomInt, randomUUID } from "node:crypto";
import { hash, verify } from "@node-rs/argon2";
import { group } from "d3";
import type { Kysely } from "kysely";
import * as v from "valibot";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { badEntry, filled } from "../input";
import { newId } from "../now";
import { type Outcome, refuse } from "../outcome";
import { setupAt } from "../setup/setup-data";
import { UNKNOWN_ADDRESS } from "../sign-in/address";
import { noteAttempt, tooManyAttempts } from "../sign-in/attempts";
import { type Person, type Role, roles } from "../sign-in/roles";
import { type Clock, write } from "../write";

export const LEAST_PASSWORD = 10;
/** A code is typed by hand, so it is short; it lives as long as a shift and a night. */
const CODE_HOURS = 24;
/** Neither 0 and O nor 1, I and L: a code is read off a paper. */
const CODE_LETTERS = "23456789ABCDEFGHJKMNPQRSTUVWXYZ";
const CODE_LENGTH = 10;

export type PersonEvent =
  | "made"
  | "changed"
  | "locked"
  | "let-in"
  | "sessions-ended"
  | "code-made"
  | "password-by-code"
  | "own-password";
export type KeptPerson = {
  readonly id: string;
  readonly username: string;
  readonly name: string;
  readonly role: Role;
  readonly customer: { readonly code: string; readonly name: string } | null;
  readonly lockedAt: Date | null;
  /** Signed in now, in so many places. */
  readonly sessions: number;
  readonly hasPassword: boolean;
  readonly events: readonly {
    readonly at: Date;
    readonly by: string;
    readonly what: PersonEvent;
    readonly note: string;
  }[];
};

/** Everyone of the shop, whoever is locked out last; what was done to each, newest first. O(people + events) */
export async function listPeople(db: Kysely<Database>, at: Date): Promise<readonly KeptPerson[]> {
  const [people, customers, events] = await Promise.all([
    db
      .selectFrom("user as u")
      .select(({ selectFrom, exists }) => [
        "u.id",
        "u.username",
        "u.name",
        "u.role",
        "u.customerId",
        "u.lockedAt",
        selectFrom("session as s")
          .whereRef("s.userId", "=", "u.id")
          .where("s.expiresAt", ">", at)
          .select(({ fn }) => fn.countAll<string>().as("n"))
          .as("sessions"),
        exists(
          selectFrom("account as a")
            .whereRef("a.userId", "=", "u.id")
            .where("a.password", "is not", null)
            .select("a.id"),
        ).as("hasPassword"),
      ])
      .orderBy("u.lockedAt", (o) => o.nullsFirst())
      .orderBy("u.name")
      .execute(),
    setupAt(db, "customer", at),
    db.selectFrom("person_event").selectAll().orderBy("at", "desc").execute(),
  ]);
  const byPerson = group(events, (e) => e.person_id);
  return people.map((p) => {
    const customer = p.customerId ? customers.get(p.customerId) : undefined;
    return {
      id: p.id,
      username: p.username ?? p.name,
      name: p.name,
      role: p.role as Role,
      customer: customer ? { code: customer.code, name: customer.data.name } : null,
      lockedAt: p.lockedAt,
      sessions: Number(p.sessions ?? 0),
      hasPassword: Boolean(p.hasPassword),
      events: (byPerson.get(p.id) ?? []).map((e) => ({
        at: e.at,
        by: e.by_user,
        what: e.what as PersonEvent,
        note: e.note,
      })),
    };
  });
}

/** Whether a user name is locked out. */
export async function lockedOut(db: Kysely<Database>, username: string): Promise<boolean> {
  const row = await db.selectFrom("user").select("lockedAt").where("username", "=", username).executeTakeFirst();
  return Boolean(row?.lockedAt);
}

const noteEvent = (db: Kysely<Database>, personId: string, by: string, what: PersonEvent, at: Date, note = "") =>
  db.insertInto("person_event").values({ id: newId(), person_id: personId, at, by_user: by, what, note }).execute();

/** How many administrators are left who can sign in, but for one. */
async function otherAdministrators(db: Kysely<Database>, personId: string): Promise<number> {
  const { n } = await db
    .selectFrom("user")
    .select(({ fn }) => fn.countAll<string>().as("n"))
    .where("role", "=", "administrator")
    .where("lockedAt", "is", null)
    .where("id", "!=", personId)
    .executeTakeFirstOrThrow();
  return Number(n);
}
const byUsername = (db: Kysely<Database>, username: string) =>
  db.selectFrom("user").selectAll().where("username", "=", username.toLowerCase()).executeTakeFirst();

export const userName = v.pipe(
  v.string(),
  v.trim(),
  v.toLowerCase(),
  v.regex(
    /^[a-z][a-z0-9.-]{1,39}$/,
    "is no user name: letters, digits, point and hyphen, a letter first, two at least",
  ),
);
const saveSchema = v.object({
  username: userName,
  name: filled(60),
  role: v.picklist(roles),
  /** Code of the customer they are held to; empty for one of the shop. */
  customer: v.optional(v.string(), ""),
  /** New, or one that is there. */
  fresh: v.boolean(),
});

/**
 * Someone made, or their name, role or customer changed; a user name stays, since the record cites it. Failures:
 * `bad-entry`, `user-name-taken`, `unknown-person`, `unknown-customer`, `customer-needs-viewer` (role), `last-administrator`.
 */
export async function savePerson(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly username: string }>> {
  const parsed = v.safeParse(saveSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { username, name, role, customer, fresh } = parsed.output;
  return write<Outcome<{ readonly username: string }>>(db, [lock.people], clock, async (trx, at) => {
    const known = await byUsername(trx, username);
    const customers = customer === "" ? [] : [...(await setupAt(trx, "customer", at)).values()];
    const held = customers.find((c) => c.code === customer);
    if (customer !== "" && !held) return refuse({ kind: "unknown-customer", code: customer });
    if (held && role !== "viewer") return refuse({ kind: "customer-needs-viewer", role });
    const customerId = held?.id ?? null;
    if (fresh) {
      if (known && known.name === name && known.role === role && known.customerId === customerId)
        return { ok: true, username };
      if (known) return refuse({ kind: "user-name-taken", username });
      const id = await addPerson(trx, { username, name, role, customerId }, null, at);
      await noteEvent(trx, id, person.username, "made", at, role);
      return { ok: true, username };
    }
    if (!known) return refuse({ kind: "unknown-person", username });
    if (known.role === "administrator" && role !== "administrator" && (await otherAdministrators(trx, known.id)) === 0)
      return refuse({ kind: "last-administrator", username });
    const changed = [
      ...(known.name === name ? [] : [`name was ${known.name}`]),
      ...(known.role === role ? [] : [`role was ${known.role}`]),
      ...(known.customerId === customerId ? [] : [customer === "" ? "held to no customer" : `held to ${customer}`]),
    ];
    if (changed.length === 0) return { ok: true, username };
    await trx.updateTable("user").set({ name, role, customerId, updatedAt: at }).where("id", "=", known.id).execute();
    // A role that is less is less at once, wherever they are signed in.
    await trx.deleteFrom("session").where("userId", "=", known.id).execute();
    await noteEvent(trx, known.id, person.username, "changed", at, changed.join("; "));
    return { ok: true, username };
  });
}

const doSchema = v.object({ username: userName, what: v.picklist(["lock", "let-in", "end-sessions"]) });
/**
 * Someone locked out, let in again, or signed out everywhere. Failures: `bad-entry`, `unknown-person`, `own-lock`,
 * `last-administrator`.
 */
export async function keepPerson(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly username: string }>> {
  const parsed = v.safeParse(doSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { username, what } = parsed.output;
  return write<Outcome<{ readonly username: string }>>(db, [lock.people], clock, async (trx, at) => {
    const known = await byUsername(trx, username);
    if (!known) return refuse({ kind: "unknown-person", username });
    if (what === "lock") {
      if (known.id === person.id) return refuse({ kind: "own-lock" });
      if (known.role === "administrator" && (await otherAdministrators(trx, known.id)) === 0)
        return refuse({ kind: "last-administrator", username });
    }
    if (what !== "end-sessions" && Boolean(known.lockedAt) === (what === "lock")) return { ok: true, username };
    if (what !== "end-sessions")
      await trx
        .updateTable("user")
        .set({ lockedAt: what === "lock" ? at : null, updatedAt: at })
        .where("id", "=", known.id)
        .execute();
    if (what !== "let-in") await trx.deleteFrom("session").where("userId", "=", known.id).execute();
    const event = { lock: "locked", "let-in": "let-in", "end-sessions": "sessions-ended" } as const;
    await noteEvent(trx, known.id, person.username, event[what], at);
    return { ok: true, username };
  });
}

/** A code by which someone sets a password of their own, once and within a day; the ones before work no more. Failures: `bad-entry`, `unknown-person`. */
export async function makeCode(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly username: string; readonly code: string; readonly expiresAt: Date }>> {
  const parsed = v.safeParse(v.object({ username: userName }), input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { username } = parsed.output;
  const code = Array.from({ length: CODE_LENGTH }, () => CODE_LETTERS[randomInt(CODE_LETTERS.length)]).join("");
  const codeHash = await hash(code);
  return write<Outcome<{ readonly username: string; readonly code: string; readonly expiresAt: Date }>>(
    db,
    [lock.people],
    clock,
    async (trx, at) => {
      const known = await byUsername(trx, username);
      if (!known) return refuse({ kind: "unknown-person", username });
      const expiresAt = new Date(at.getTime() + CODE_HOURS * 3_600_000);
      await trx
        .insertInto("one_time_code")
        .values({ id: newId(), person_id: known.id, code_hash: codeHash, made_at: at, expires_at: expiresAt })
        .execute();
      await noteEvent(trx, known.id, person.username, "code-made", at);
      return { ok: true, username, code, expiresAt };
    },
  );
}

export const newPassword = v.pipe(
  v.string(),
  v.minLength(LEAST_PASSWORD, `is too short: ${LEAST_PASSWORD} characters at least`),
  v.maxLength(200, "is too long"),
);
const codeSchema = v.object({ username: userName, code: v.string(), password: newPassword });

async function setPassword(db: Kysely<Database>, userId: string, password: string, at: Date): Promise<void> {
  await db
    .updateTable("account")
    .set({ password: await hash(password), updatedAt: at })
    .where("userId", "=", userId)
    .where("providerId", "=", "credential")
    .execute();
}

/**
 * A password set by the newest code, which is spent by it; whoever was signed in under the old one is no more. Wrong tries
 * count as those at sign-in do. Failures: `bad-entry` (password), `too-many-tries`, `wrong-code` (wrong, spent, too old, or of someone locked out).
 */
export async function passwordByCode(
  db: Kysely<Database>,
  input: unknown,
  address: string,
  clock: () => Date,
): Promise<Outcome<{ readonly username: string }>> {
  const parsed = v.safeParse(codeSchema, input);
  if (!parsed.success)
    return refuse(
      parsed.issues.some((i) => i.path?.[0]?.key === "username")
        ? { kind: "wrong-code" }
        : badEntry(parsed.issues, "password"),
    );
  const { username, password } = parsed.output;
  const code = parsed.output.code.toUpperCase().replace(/[\s-]/g, "").slice(0, 40);
  if (await tooManyAttempts(db, username, address, clock())) return refuse({ kind: "too-many-tries" });
  const outcome = await write<Outcome<{ readonly username: string }>>(db, [lock.people], clock, async (trx, at) => {
    const known = await byUsername(trx, username);
    const newest =
      known &&
      (await trx
        .selectFrom("one_time_code as c")
        .leftJoin("one_time_code_use as u", "u.code_id", "c.id")
        .select(["c.id", "c.code_hash", "c.expires_at", "u.at as usedAt"])
        .where("c.person_id", "=", known.id)
        .orderBy("c.made_at", "desc")
        .limit(1)
        .executeTakeFirst());
    const fits = newest && !newest.usedAt && newest.expires_at > at && (await verify(newest.code_hash, code));
    if (!known || known.lockedAt || !fits) return refuse({ kind: "wrong-code" });
    await trx.insertInto("one_time_code_use").values({ code_id: newest.id, at }).execute();
    await setPassword(trx, known.id, password, at);
    await trx.deleteFrom("session").where("userId", "=", known.id).execute();
    await noteEvent(trx, known.id, username, "password-by-code", at);
    return { ok: true, username };
  });
  await noteAttempt(db, username, address, outcome.ok, clock());
  return outcome;
}

const ownSchema = v.object({ old: v.string(), password: newPassword });
/** One's own password, by the old one; signed out everywhere but here. Failures: `bad-entry`, `too-many-tries`, `wrong-password`. */
export async function ownPassword(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: () => Date,
  /** The session that stays. */
  keptToken: string | null = null,
): Promise<Outcome<object>> {
  const parsed = v.safeParse(ownSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues, "password"));
  const name = `sign:${person.username}`;
  if (await tooManyAttempts(db, name, UNKNOWN_ADDRESS, clock())) return refuse({ kind: "too-many-tries" });
  const account = await db
    .selectFrom("account")
    .select("password")
    .where("userId", "=", person.id)
    .where("providerId", "=", "credential")
    .executeTakeFirst();
  const fits = account?.password ? await verify(account.password, parsed.output.old.slice(0, 200)) : false;
  await noteAttempt(db, name, UNKNOWN_ADDRESS, fits, clock());
  if (!fits) return refuse({ kind: "wrong-password" });
  return write<Outcome<object>>(db, [lock.people], clock, async (trx, at) => {
    await setPassword(trx, person.id, parsed.output.password, at);
    await trx
      .deleteFrom("session")
      .where("userId", "=", person.id)
      .$if(keptToken !== null, (q) => q.where("token", "!=", keptToken ?? ""))
      .execute();
    await noteEvent(trx, person.id, person.username, "own-password", at);
    return { ok: true };
  });
}

/** A person and how they sign in; without a password only a one-time code lets them in. The id they were given. */
export async function addPerson(
  trx: Kysely<Database>,
  { username, name, role, customerId }: Omit<Person, "id">,
  passwordHash: string | null,
  at: Date,
): Promise<string> {
  const id = randomUUID();
  await trx
    .insertInto("user")
    .values({
      id,
      name,
      // Nobody is written to; the sign-in library wants one that is its own.
      email: `${username}@people.invalid`,
      emailVerified: true,
      image: null,
      username,
      displayUsername: username,
      role,
      customerId,
    })
    .execute();
  await trx
    .insertInto("account")
    .values({
      id: randomUUID(),
      accountId: id,
      providerId: "credential",
      userId: id,
      password: passwordHash,
      updatedAt: at,
    })
    .execute();
  return id;
}
