import "server-only";
import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { type Outcome, refuse } from "../outcome";
import { noteAttempt, tooManyAttempts } from "./attempts";
import { passwordFits } from "./person";
import type { Person } from "./roles";

/** A use case that is signed: its input bears the person's password as well. Failures: `too-many-tries`, `wrong-password`, and its own. */
export const signed =
  <T extends object>(
    run: (db: Kysely<Database>, person: Person, input: unknown, clock: () => Date) => Promise<Outcome<T>>,
  ) =>
  async (
    db: Kysely<Database>,
    person: Person,
    input: { readonly password: string },
    clock: () => Date,
  ): Promise<Outcome<T>> => {
    const name = `sign:${person.username}`;
    if (await tooManyAttempts(db, name, name, clock())) return refuse({ kind: "too-many-tries" });
    const fits = await passwordFits(person, String(input.password).slice(0, 200));
    await noteAttempt(db, name, name, fits, clock());
    return fits ? run(db, person, input, clock) : refuse({ kind: "wrong-password" });
  };
