import { certificateOf } from "@/app/certificate";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import type { KeptCertificate } from "@/server/release/keep-certificate";
import type { Person } from "@/server/sign-in/roles";

/** The certificate of a rack that a person asks for, of one of several decisions where the address names one; else the answer that there is none. */
export async function certificateAsked(
  person: Person,
  number: string,
  address: string,
): Promise<KeptCertificate | Response> {
  const { units } = await preferences();
  const decision = new URL(address).searchParams.get("decision");
  const made = await certificateOf(database(), person, number, units, now, decision);
  return made.ok
    ? made.kept
    : Response.json(made.failure, { status: made.failure.kind === "unknown-rack" ? 404 : 409 });
}
