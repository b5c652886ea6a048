import type { Failure } from "@/core/result";
import { may, type Person } from "../sign-in/roles";

/** A hold that stands, or was set aside with a reason (`leftOut`) by one who may. Failures: the hold's own, `role-refused`. */
export function unlessSetAside(hold: Failure, person: Person, leftOut: string | null): Failure | null {
  if (leftOut === null) return hold;
  return may(person.role, "release") ? null : { kind: "role-refused", role: person.role, needs: "release" };
}
