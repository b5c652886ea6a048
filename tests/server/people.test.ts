import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  keepPerson,
  listPeople,
  lockedOut,
  makeCode,
  ownPassword,
  passwordByCode,
  savePerson,
} from "@/server/shop/people";
import { MOST_FAILURES_PER_NAME, WINDOW_MINUTES } from "@/server/sign-in/attempts";
import { person, type TestDatabase, testDatabase } from "../support/database";

const admin = person("administrator", "dagny");
let t: TestDatabase;
let minute = 0;
/** A clock of the test's own: each look at it is a minute later. */
const base = new Date("2027-02-01T08:00:00Z").getTime();
const clock = () => new Date(base + 60_000 * minute++);
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const make = (over: object = {}) =>
  savePerson(t.app, admin, { username: "Anna", name: "Anna Field", role: "operator", fresh: true, ...over }, clock);
const found = async (username: string) => (await listPeople(t.app, clock())).find((p) => p.username === username);
const codeFor = async (username: string) => {
  const given = await makeCode(t.app, admin, { username }, clock);
  if (!given.ok) throw new Error(given.failure.kind);
  return given;
};
const kindOf = (outcome: { ok: boolean; failure?: { kind: string } }) => (outcome.ok ? "ok" : outcome.failure?.kind);

describe("who is of the shop", () => {
  test("someone is made under a small user name, once, and stands with who made them", async () => {
    expect(await make()).toEqual({ ok: true, username: "anna" });
    expect(kindOf(await make())).toBe("ok");
    expect(kindOf(await make({ name: "Another Anna" }))).toBe("user-name-taken");
    const anna = await found("anna");
    expect(anna).toMatchObject({
      name: "Anna Field",
      role: "operator",
      hasPassword: false,
      sessions: 0,
      lockedAt: null,
    });
    expect(anna?.events.map((e) => [e.what, e.by])).toEqual([["made", "dagny"]]);
  });
  test("what is typed wrong is said by its field, and nothing is kept of it", async () => {
    for (const [over, field] of [
      [{ username: "1a" }, "username"],
      [{ username: "a" }, "username"],
      [{ username: "berta", name: " " }, "name"],
      [{ username: "berta", role: "boss" }, "role"],
    ] as const) {
      const outcome = await make(over);
      expect(outcome).toMatchObject({ ok: false, failure: { kind: "bad-entry", field } });
    }
    expect(await found("berta")).toBeUndefined();
  });
  test("only a viewer is held to a customer, and only to one there is", async () => {
    expect(kindOf(await make({ username: "carl", customer: "C1" }))).toBe("customer-needs-viewer");
    expect(kindOf(await make({ username: "carl", role: "viewer", customer: "C99" }))).toBe("unknown-customer");
    expect(kindOf(await make({ username: "carl", role: "viewer", customer: "C1" }))).toBe("ok");
    expect((await found("carl"))?.customer?.code).toBe("C1");
  });
  test("name and role are changed with what they were; a role that changes signs them out at once", async () => {
    const id = (await found("anna"))?.id ?? "";
    const signIn = (token: string) =>
      t.app
        .insertInto("session")
        .values({
          id: token,
          token,
          userId: id,
          expiresAt: new Date("2027-03-01"),
          updatedAt: new Date(base),
          ipAddress: null,
          userAgent: null,
        })
        .execute();
    await signIn("s1");
    expect((await found("anna"))?.sessions).toBe(1);
    const change = { username: "anna", name: "Anna Field", role: "lead", fresh: false };
    expect(kindOf(await savePerson(t.app, admin, change, clock))).toBe("ok");
    expect(await found("anna")).toMatchObject({ role: "lead", sessions: 0 });
    expect((await found("anna"))?.events[0]).toMatchObject({ what: "changed", note: "role was operator" });
    // The same again changes nothing and is not noted.
    const before = (await found("anna"))?.events.length;
    await savePerson(t.app, admin, change, clock);
    expect((await found("anna"))?.events.length).toBe(before);
    expect(kindOf(await savePerson(t.app, admin, { ...change, username: "nobody" }, clock))).toBe("unknown-person");
  });
  test("one administrator who can sign in is always left, and nobody locks themselves out", async () => {
    const dagny = { ...admin, id: (await found("dagny"))?.id ?? "" };
    const others = (await listPeople(t.app, clock())).filter(
      (p) => p.role === "administrator" && p.username !== "dagny",
    );
    for (const other of others) await keepPerson(t.app, dagny, { username: other.username, what: "lock" }, clock);
    const demote = { username: "dagny", name: "Dagny Holm", role: "lead", fresh: false };
    expect(kindOf(await savePerson(t.app, dagny, demote, clock))).toBe("last-administrator");
    expect(kindOf(await keepPerson(t.app, dagny, { username: "dagny", what: "lock" }, clock))).toBe("own-lock");
    expect(kindOf(await keepPerson(t.app, admin, { username: "dagny", what: "lock" }, clock))).toBe(
      "last-administrator",
    );
    expect(await found("dagny")).toMatchObject({ role: "administrator", lockedAt: null });
  });
});

describe("a one-time code", () => {
  const set = (username: string, code: string, password = "a long enough one") =>
    passwordByCode(t.app, { username, code, password }, "-", clock);

  test("sets a password once, typed small and with its space; then it is spent", async () => {
    const { code } = await codeFor("anna");
    expect(code).toMatch(/^[2-9A-HJ-NP-Z]{10}$/);
    expect(await set("Anna", `${code.slice(0, 5).toLowerCase()} ${code.slice(5)}`)).toEqual({
      ok: true,
      username: "anna",
    });
    const anna = { ...person("lead", "anna"), id: (await found("anna"))?.id ?? "" };
    expect(await passwordOf(anna.id, "a long enough one")).toBe(true);
    expect(kindOf(await set("anna", code, "another long one"))).toBe("wrong-code");
    expect(await passwordOf(anna.id, "a long enough one")).toBe(true);
    expect((await found("anna"))?.events[0]).toMatchObject({ what: "password-by-code", by: "anna" });
  });
  test("an older one works no more once there is a newer; nor after a day; nor for someone else", async () => {
    const old = await codeFor("carl");
    const fresh = await codeFor("carl");
    expect(kindOf(await set("carl", old.code))).toBe("wrong-code");
    expect(kindOf(await set("anna", fresh.code))).toBe("wrong-code");
    minute += 24 * 60 + 1;
    expect(kindOf(await set("carl", fresh.code))).toBe("wrong-code");
  });
  test("a password that is too short leaves the code as it was", async () => {
    const { code } = await codeFor("carl");
    const short = await set("carl", code, "short");
    expect(short).toMatchObject({ ok: false, failure: { kind: "bad-entry", field: "password" } });
    expect(JSON.stringify(short)).not.toContain(code);
    expect(kindOf(await set("carl", code))).toBe("ok");
  });
  test("wrong tries count: after so many even the right one waits", async () => {
    minute += WINDOW_MINUTES + 1;
    const { code } = await codeFor("carl");
    const still = minute;
    for (let i = 0; i < MOST_FAILURES_PER_NAME; i++) {
      minute = still;
      expect(kindOf(await set("carl", "AAAAAAAAAA"))).toBe("wrong-code");
    }
    minute = still;
    expect(kindOf(await set("carl", code))).toBe("too-many-tries");
    minute = still + WINDOW_MINUTES + 5;
    expect(kindOf(await set("carl", code))).toBe("ok");
  });
  test("is nothing to someone locked out", async () => {
    const { code } = await codeFor("carl");
    expect(await lockedOut(t.app, "carl")).toBe(false);
    await keepPerson(t.app, admin, { username: "carl", what: "lock" }, clock);
    expect(await lockedOut(t.app, "carl")).toBe(true);
    expect(kindOf(await set("carl", code))).toBe("wrong-code");
    await keepPerson(t.app, admin, { username: "carl", what: "let-in" }, clock);
    expect(await lockedOut(t.app, "carl")).toBe(false);
    expect((await found("carl"))?.events.slice(0, 2).map((e) => e.what)).toEqual(["let-in", "locked"]);
  });
  test("what is kept of it tells nobody what it was", async () => {
    const { code } = await codeFor("anna");
    const rows = await t.app.selectFrom("one_time_code").selectAll().execute();
    expect(JSON.stringify(rows)).not.toContain(code);
    expect(JSON.stringify(await t.app.selectFrom("person_event").selectAll().execute())).not.toContain(code);
  });
});

/** Whether a password is someone's, by the rule signing goes by. */
async function passwordOf(id: string, password: string): Promise<boolean> {
  const { verify } = await import("@node-rs/argon2");
  const account = await t.app.selectFrom("account").select("password").where("userId", "=", id).executeTakeFirst();
  return account?.password ? verify(account.password, password) : false;
}

describe("one's own password", () => {
  test("is changed by the old one, and only by it; the session it was done in stays", async () => {
    minute += WINDOW_MINUTES + 1;
    const anna = { ...person("lead", "anna"), id: (await found("anna"))?.id ?? "" };
    for (const token of ["here", "there"])
      await t.app
        .insertInto("session")
        .values({
          id: token,
          token,
          userId: anna.id,
          expiresAt: new Date("2027-12-01"),
          updatedAt: new Date(base),
          ipAddress: null,
          userAgent: null,
        })
        .execute();
    const change = (old: string, password: string) => ownPassword(t.app, anna, { old, password }, clock, "here");
    expect(kindOf(await change("not it", "a quite other one"))).toBe("wrong-password");
    expect(await change("a long enough one", "short")).toMatchObject({
      failure: { kind: "bad-entry", field: "password" },
    });
    expect(kindOf(await change("a long enough one", "a quite other one"))).toBe("ok");
    expect(await passwordOf(anna.id, "a quite other one")).toBe(true);
    const left = await t.app.selectFrom("session").select("token").where("userId", "=", anna.id).execute();
    expect(left).toEqual([{ token: "here" }]);
  });
});

test("what was done to people can be added to and nothing else, by whoever the application is", async () => {
  for (const table of ["person_event", "one_time_code", "one_time_code_use"] as const) {
    await expect(t.app.deleteFrom(table).execute()).rejects.toThrow(/permission denied/);
    await expect(
      t.app
        .updateTable(table as "person_event")
        .set({ at: new Date() })
        .execute(),
    ).rejects.toThrow(/permission denied|does not exist/);
  }
});
