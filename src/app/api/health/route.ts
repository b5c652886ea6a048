import { sql } from "kysely";
import { database } from "@/server/database";
import { errorText, log } from "@/server/log";

export const dynamic = "force-dynamic";

/** Says whether the application and its database answer. Open to anyone, and tells nothing else. */
export async function GET(): Promise<Response> {
  const started = performance.now();
  try {
    await sql`select 1`.execute(database());
    return Response.json({ ok: true, databaseMs: Math.round(performance.now() - started) });
  } catch (error) {
    log("error", "health: database does not answer", { error: errorText(error) });
    return Response.json({ ok: false, database: "does not answer" }, { status: 503 });
  }
}
