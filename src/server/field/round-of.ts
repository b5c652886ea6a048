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
  person: Pick<Person, "username">,
  at: Date,
): { readonly id: string; readonly done: ReadonlySet<string> } {
  const own = zones
    .flatMap((z) => z.captures.map((c) => ({ zone: z.name, ...c })))
    .filter((c) => c.row.round_id !== null && c.user === person.username && at.getTime() - c.at.getTime() <= ROUND_MS)
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

/** Rounds that were walked, newest first: who, when it began, how many zones. O(captures). */
export function roundsOf(
  zones: readonly ZoneFile[],
): readonly { readonly at: Date; readonly by: string; readonly zones: number }[] {
  const rounds = new Map<string, { at: Date; by: string; zones: Set<string> }>();
  for (const z of zones)
    for (const c of z.captures) {
      if (c.row.round_id === null) continue;
      const key = `${c.row.round_id} ${c.by}`;
      const round = rounds.get(key) ?? { at: c.at, by: c.by, zones: new Set<string>() };
      if (c.at < round.at) round.at = c.at;
      round.zones.add(z.name);
      rounds.set(key, round);
    }
  return [...rounds.values()]
    .map((r) => ({ ...r, zones: r.zones.size }))
    .sort((a, b) => b.at.getTime() - a.at.getTime());
}
