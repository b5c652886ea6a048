import "server-only";
import { connect, type Db } from "@/db/connect";

const held = globalThis as { sorrelDb?: Db };

/** The application's database, opened once per process as the role that owns nothing. */
export function database(): Db {
  if (!held.sorrelDb) {
    const address = process.env.APP_DATABASE_URL;
    if (!address) throw new Error("APP_DATABASE_URL is not set; start with: npm start");
    held.sorrelDb = connect(address, 16);
  }
  return held.sorrelDb;
}
