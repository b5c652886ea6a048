import { database } from "@/server/database";
import { demoPassword, people } from "./shop";

/** The demo's sign-ins, only where the demo's people are in the database. */
export async function demoSignIns(): Promise<{ username: string; password: string; name: string; role: string }[]> {
  const there = await database()
    .selectFrom("user")
    .select("username")
    .where("email", "like", "%@tarnwick.invalid")
    .execute();
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
