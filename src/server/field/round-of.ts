import { derivedId } from "../record/derived-id";
import type { Person } from "../sign-in/roles";
import type { ZoneFile } from "./zones-of";

/** A round is taken up again within so long; later it is another. */
const ROUND_MS = 18 * 3_600_000;

/**
 * The round of a person on a structure: the one they left off within the day, with the zones they have done; else a new one.
 * Its id is the same however often the page is opened, so that what is sent twice is one round.
 */
export function roundOf(
  zones: readonly ZoneFile[],
  person: Pick<Person, "name" | "username">,
  at: Date,
): { readonly id: string; readonly done: ReadonlySet<string> } {
  const own = zones
    .flatMap((z) => z.captures.map((c) => ({ zone: z.name, ...c })))
    .filter((c) => c.row.round_id !== null && c.by === person.name && at.getTime() - c.at.getTime() <= ROUND_MS)
    .sort((a, b) => b.at.getTime() - a.at.getTime());
  const id = own[0]?.row.round_id;
  if (id) return { id, done: new Set(own.filter((c) => c.row.round_id === id).map((c) => c.zone)) };
  const day = at.toISOString().slice(0, 10).replaceAll("-", "");
  return {
    id: derivedId(
      `${day}-0000-7000-8000-000000000000`,
      `round ${person.username} ${zones.map((z) => z.name).join("/")}`,
    ),
    done: new Set(),
  };
}
