import { database } from "@/server/database";
import { demoPassword, people } from "./shop";

/** The demo's sign-ins, only where nobody but the demo's people is in the database: in a shop of one's own no password is told. */
export async function demoSignIns(): Promise<{ username: string; password: string; name: string; role: string }[]> {
  const there = await database()
    .selectFrom("user")
    .select("username")
    .where("email", "like", "%@tarnwick.invalid")
    .execute();
  const others = await database()
    .selectFrom("user")
    .select("username")
    .where("email", "not like", "%@tarnwick.invalid")
    .limit(1)
    .execute();
  if (others.length > 0) return [];
  const names = new Set(there.map((row) => row.username));
  return people
    .filter((p) => names.has(p.username))
    .map((p) => ({
      username: p.username,
      password: demoPassword(p.username),
      name: p.name,
      role: p.customer ? `${p.role}, one customer only` : p.role,
    }));
}
