import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { UNKNOWN_ADDRESS } from "./address";

/** Failed tries within the window before sign-in rests: per user name, and per address. Kept in the database, so that every copy of the application counts alike. */
export const MOST_FAILURES_PER_NAME = 6;
export const MOST_FAILURES_PER_ADDRESS = 30;
export const WINDOW_MINUTES = 10;

export async function tooManyAttempts(
  db: Kysely<Database>,
  username: string,
  address: string,
  at: Date,
): Promise<boolean> {
  const since = new Date(at.getTime() - WINDOW_MINUTES * 60_000);
  const count = async (column: "username" | "address", value: string) =>
    Number(
      (
        await db
          .selectFrom("sign_in_attempt")
          .select(({ fn }) => fn.countAll<string>().as("n"))
          .where(column, "=", value)
          .where("at", ">", since)
          .where("succeeded", "=", false)
          .executeTakeFirstOrThrow()
      ).n,
    );
  return (
    (await count("username", username)) >= MOST_FAILURES_PER_NAME ||
    (address !== UNKNOWN_ADDRESS && (await count("address", address)) >= MOST_FAILURES_PER_ADDRESS)
  );
}

export async function noteAttempt(
  db: Kysely<Database>,
  username: string,
  address: string,
  succeeded: boolean,
  at: Date,
): Promise<void> {
  await db
    .insertInto("sign_in_attempt")
    .values({ username: username.slice(0, 80), address: address.slice(0, 80), succeeded, at })
    .execute();
}
