import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { entryKinds, mayEnter } from "@/core/kinds";
import { addressOf, UNKNOWN_ADDRESS } from "@/server/sign-in/address";
import {
  MOST_FAILURES_PER_ADDRESS,
  MOST_FAILURES_PER_NAME,
  noteAttempt,
  tooManyAttempts,
  WINDOW_MINUTES,
} from "@/server/sign-in/attempts";
import { type Ability, may, type Role, roles } from "@/server/sign-in/roles";
import { type TestDatabase, testDatabase } from "../support/database";

const header = (value: string | null) => ({ get: (name: string) => (name === "x-forwarded-for" ? value : null) });

describe("who is asking", () => {
  test("without a proxy of one's own the header is anybody's, and is not taken", () => {
    expect(addressOf(header("203.0.113.9"), false)).toBe(UNKNOWN_ADDRESS);
  });
  test("behind one it is the last address: the one the proxy saw", () => {
    expect(addressOf(header("198.51.100.1, 203.0.113.9"), true)).toBe("203.0.113.9");
    expect(addressOf(header("203.0.113.9"), true)).toBe("203.0.113.9");
    expect(addressOf(header(null), true)).toBe(UNKNOWN_ADDRESS);
    expect(addressOf(header(" "), true)).toBe(UNKNOWN_ADDRESS);
  });
});

describe("tries", () => {
  let t: TestDatabase;
  beforeAll(async () => {
    t = await testDatabase();
  });
  afterAll(() => t.drop());
  const at = new Date("2026-05-04T10:00:00Z");
  const later = (minutes: number) => new Date(at.getTime() + minutes * 60_000);
  const fail = (name: string, address: string, times: number) =>
    Promise.all(Array.from({ length: times }, () => noteAttempt(t.app, name, address, false, at)));

  test("one short of the limit still may; at it no longer; after the window again", async () => {
    await fail("anna", UNKNOWN_ADDRESS, MOST_FAILURES_PER_NAME - 1);
    expect(await tooManyAttempts(t.app, "anna", UNKNOWN_ADDRESS, later(1))).toBe(false);
    await fail("anna", UNKNOWN_ADDRESS, 1);
    expect(await tooManyAttempts(t.app, "anna", UNKNOWN_ADDRESS, later(1))).toBe(true);
    expect(await tooManyAttempts(t.app, "anna", UNKNOWN_ADDRESS, later(WINDOW_MINUTES + 1))).toBe(false);
  });
  test("another name is not held back by it", async () => {
    expect(await tooManyAttempts(t.app, "berta", UNKNOWN_ADDRESS, later(1))).toBe(false);
  });
  test("a right password is no failure", async () => {
    for (let i = 0; i < MOST_FAILURES_PER_NAME + 2; i++) await noteAttempt(t.app, "carl", "203.0.113.1", true, at);
    expect(await tooManyAttempts(t.app, "carl", "203.0.113.1", later(1))).toBe(false);
  });
  test("one address that tries many names is held back; the unknown address never is", async () => {
    for (let i = 0; i < MOST_FAILURES_PER_ADDRESS; i++) {
      await noteAttempt(t.app, `n${i}`, "203.0.113.2", false, at);
      await noteAttempt(t.app, `m${i}`, UNKNOWN_ADDRESS, false, at);
    }
    expect(await tooManyAttempts(t.app, "new", "203.0.113.2", later(1))).toBe(true);
    expect(await tooManyAttempts(t.app, "new", "203.0.113.3", later(1))).toBe(false);
    expect(await tooManyAttempts(t.app, "new", UNKNOWN_ADDRESS, later(1))).toBe(false);
  });
  test("names and addresses of any length and content are taken as they are", async () => {
    const odd = ["'; drop table record; --", "x".repeat(500), "ünïcode ✓", ""];
    for (const name of odd) await noteAttempt(t.app, name, name, false, at);
    for (const name of odd) expect(await tooManyAttempts(t.app, name, name, later(1))).toBe(false);
    expect(
      Number(
        (
          await t.app
            .selectFrom("record")
            .select(({ fn }) => fn.countAll<string>().as("n"))
            .executeTakeFirstOrThrow()
        ).n,
      ),
    ).toBeGreaterThan(0);
  });
});

describe("roles", () => {
  const table: Record<Role, Ability[]> = {
    administrator: ["look", "log-line", "inspect", "release", "administer"],
    lead: ["look", "log-line", "inspect", "release"],
    inspector: ["look", "log-line", "inspect"],
    operator: ["look", "log-line"],
    viewer: ["look"],
  };
  const every: Ability[] = ["look", "log-line", "inspect", "release", "administer"];
  test.each(roles.map((r) => [r]))("%s may do just this", (role) => {
    expect(every.filter((a) => may(role, a))).toEqual(table[role]);
  });
  test("what a person on the line logs, and what wants an inspector", () => {
    const line = entryKinds().filter((kind) => mayEnter(kind) === "log-line");
    expect([...line].sort()).toEqual([
      "bake-event",
      "bath-check",
      "bath-event",
      "case-note",
      "coat",
      "conditions",
      "dry-off",
      "extra-work",
      "item-closed",
      "lamp-check",
      "line-run",
      "line-stop",
      "line-stop-back",
      "load",
      "metal-mark",
      "outgas",
      "panel",
      "passage",
      "powder-height",
      "pre-flight",
      "prep-step",
      "round-skip",
      "sludge",
      "touch-up",
      "upkeep",
      "wash-panel",
      "wipe-off",
    ]);
    // What a customer is told is said for the shop.
    expect(entryKinds().filter((kind) => mayEnter(kind) === "release")).toEqual(["test-skip", "complaint-answer"]);
    expect(entryKinds().every((kind) => ["log-line", "inspect", "release"].includes(mayEnter(kind) ?? ""))).toBe(true);
  });
});
