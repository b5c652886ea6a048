import "server-only";
import { cookies } from "next/headers";
import type { Person } from "./sign-in/roles";

const YEAR_S = 365 * 24 * 3600;
const LAST = 30;

/** Where this person is in the first-shift tour: kept in the browser under their own name, since a tablet has many hands. */
export async function tourOf(person: Person): Promise<number | null> {
  const kept = (await cookies()).get("tour")?.value ?? "";
  const [who, step] = kept.split(":");
  const at = Number(step);
  return who === person.id && Number.isInteger(at) && at >= 0 && at <= LAST ? at : null;
}
/** Keeps the step they are at; null leaves the tour. */
export async function keepTour(person: Person, step: number | null): Promise<void> {
  const jar = await cookies();
  if (step === null) jar.delete("tour");
  else if (Number.isInteger(step) && step >= 0 && step <= LAST)
    jar.set("tour", `${person.id}:${step}`, { path: "/", maxAge: YEAR_S, sameSite: "lax", httpOnly: true });
}
