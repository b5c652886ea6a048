import { type Kysely, sql } from "kysely";

/** Sign-in: better-auth's tables, with the role and the customer a viewer is tied to. Sessions come and go, so these may change. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table "user" (
  "id" text primary key, "name" text not null, "email" text not null unique, "emailVerified" boolean not null, "image" text,
  "createdAt" timestamptz not null default now(), "updatedAt" timestamptz not null default now(),
  "username" text unique, "displayUsername" text,
  "role" text not null default 'viewer' check ("role" in ('administrator','lead','inspector','operator','viewer')),
  "customerId" uuid references setup_entity);
create table "session" (
  "id" text primary key, "expiresAt" timestamptz not null, "token" text not null unique,
  "createdAt" timestamptz not null default now(), "updatedAt" timestamptz not null, "ipAddress" text, "userAgent" text,
  "userId" text not null references "user" on delete cascade);
create index session_by_user on "session" ("userId");
create table "account" (
  "id" text primary key, "accountId" text not null, "providerId" text not null,
  "userId" text not null references "user" on delete cascade, "accessToken" text, "refreshToken" text, "idToken" text,
  "accessTokenExpiresAt" timestamptz, "refreshTokenExpiresAt" timestamptz, "scope" text, "password" text,
  "createdAt" timestamptz not null default now(), "updatedAt" timestamptz not null);
create index account_by_user on "account" ("userId");
create table "verification" (
  "id" text primary key, "identifier" text not null, "value" text not null, "expiresAt" timestamptz not null,
  "createdAt" timestamptz not null default now(), "updatedAt" timestamptz not null default now());
`)
    .execute(db);
}
