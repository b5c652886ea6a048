import { type Kysely, sql } from "kysely";
import type { Database } from "@/db/schema";

/** The number after the newest load that has one, as a proposal; "1" where none has. One probe of the index on kind and time. */
export async function nextLoadNumber(db: Kysely<Database>, at: Date): Promise<string> {
  const { rows } = await sql<{ load_no: string }>`
    select b.load_no from record r join bake b on b.record_id = r.id
    where r.kind = 'bake' and r.happened_at <= ${at} and b.load_no ~ '^[0-9]{1,9}$' order by r.happened_at desc limit 1`.execute(
    db,
  );
  return String(Number(rows[0]?.load_no ?? 0) + 1);
}
