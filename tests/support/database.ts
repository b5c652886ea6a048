import { randomBytes } from "node:crypto";
import pg from "pg";
import { connect, type Db } from "@/db/connect";
import { grantApplicationRole, migrateToLatest } from "@/db/prepare";
import { newId } from "@/server/now";
import type { NewRecord } from "@/server/record/store-record";
import type { Person, Role } from "@/server/sign-in/roles";

const server = () => {
  const url = process.env.TEST_SERVER_URL;
  if (!url) throw new Error("Database tests run through npm test, which starts a server of their own.");
  return url;
};
const at = (url: string, name: string) => {
  const u = new URL(url);
  u.pathname = `/${name}`;
  return u.toString();
};

export type TestDatabase = {
  readonly app: Db;
  readonly owner: Db;
  readonly ownerUrl: string;
  readonly appUrl: string;
  readonly drop: () => Promise<void>;
};

/** A database of the test's own, made from a template: as the application's role and as the owner. */
async function madeFrom(template: string, prepare: (owner: Db) => Promise<unknown>): Promise<TestDatabase> {
  const name = `t_${randomBytes(6).toString("hex")}`;
  const client = new pg.Client({ connectionString: server() });
  await client.connect();
  await client.query(`create database ${name} template ${template}`);
  const ownerUrl = at(server(), name);
  const appUrl = at(process.env.APP_DATABASE_URL ?? "", name);
  const owner = connect(ownerUrl, 2);
  await prepare(owner);
  await client.query(`grant connect on database ${name} to sorrel_app`);
  const app = connect(appUrl, 6);
  return {
    app,
    owner,
    ownerUrl,
    appUrl,
    drop: async () => {
      await app.destroy();
      await owner.destroy();
      await client.query(`drop database ${name} with (force)`);
      await client.end();
    },
  };
}
/** With the demo in it. */
export const testDatabase = (): Promise<TestDatabase> =>
  madeFrom(process.env.TEST_TEMPLATE ?? "sorrel_template", async () => {});
/** With nobody and nothing in it, as a shop finds it that begins. */
export const emptyDatabase = (): Promise<TestDatabase> =>
  madeFrom("template0 encoding 'UTF8'", async (owner) => {
    await migrateToLatest(owner);
    await grantApplicationRole(owner, process.env.APP_DATABASE_PASSWORD ?? "");
  });

export type { Person };
export const person = (role: Role, username: string = role, customerId: string | null = null): Person => ({
  id: username,
  username,
  name: username,
  role,
  customerId,
});

export const bathRecord = (bathId: string, extra: Partial<NewRecord> = {}): NewRecord => {
  const id = newId();
  return {
    id,
    kind: "bath-check",
    happenedAt: new Date("2026-11-20T06:15:00Z"),
    by: "rufus",
    grade: "measured",
    idempotencyKey: `test:${id}`,
    bathId,
    details: { bath_check: [{ ordinal: 1, parameter: "ph", value: 5.31, typed: "5.31", typed_unit: "" }] },
    ...extra,
  };
};
