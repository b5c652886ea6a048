import { type Kysely, Migrator, sql } from "kysely";
import { migrationProvider } from "./migrations";
import type { Database } from "./schema";

/** The role the application runs as. It owns nothing. */
export const APPLICATION_ROLE = "sorrel_app";

/** Brings the database to the newest migration and returns the names that ran. Throws the migration's own error. */
export async function migrateToLatest(db: Kysely<Database>): Promise<string[]> {
  const { error, results } = await new Migrator({ db, provider: migrationProvider }).migrateToLatest();
  if (error) throw error;
  return (results ?? []).map((result) => result.migrationName);
}

/**
 * Makes the application's role, with SELECT and INSERT on the record and no more; only sign-in tables and what is derived may change.
 * The password is sent as a parameter to format(), never spliced into SQL here.
 */
export async function grantApplicationRole(db: Kysely<Database>, password: string): Promise<void> {
  await sql`select set_config('sorrel.role_password', ${password}, false)`.execute(db);
  await sql
    .raw(`
do $$ begin
  perform pg_advisory_xact_lock(7206001);
  if not exists (select 1 from pg_roles where rolname = '${APPLICATION_ROLE}') then
    execute 'create role ${APPLICATION_ROLE} login';
  end if;
  execute format('alter role ${APPLICATION_ROLE} with login password %L', current_setting('sorrel.role_password'));
  execute format('grant connect on database %I to ${APPLICATION_ROLE}', current_database());
end $$;
revoke all on schema public from public;
grant usage on schema public to ${APPLICATION_ROLE};
revoke all on all tables in schema public from ${APPLICATION_ROLE};
grant select, insert on all tables in schema public to ${APPLICATION_ROLE};
grant usage on all sequences in schema public to ${APPLICATION_ROLE};
grant update, delete on "user", "session", "account", "verification" to ${APPLICATION_ROLE};
grant update on rack_standing, job_standing, look_again, test_outcome, rack_met to ${APPLICATION_ROLE};
grant delete on sign_in_attempt to ${APPLICATION_ROLE};
revoke insert on backup_taken from ${APPLICATION_ROLE};
revoke all on kysely_migration, kysely_migration_lock from ${APPLICATION_ROLE};
grant select on kysely_migration to ${APPLICATION_ROLE};
`)
    .execute(db);
}
