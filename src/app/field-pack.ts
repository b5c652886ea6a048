import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { takeAlong } from "@/server/field/take-along";
import type { Preferences } from "@/server/preferences";
import type { Person } from "@/server/sign-in/roles";
import { dayMonthYear } from "@/ui/format";
import type { SentPack } from "@/ui/in-hand/pack";
import { say } from "@/ui/kinds/zone-visit";
import { zoneFound, zonePlace } from "@/ui/words/field-zones";

/** Visits of a zone that are taken along in words; its readings all stand in what was read last. */
const VISITS_SHOWN = 6;

/** What a round needs where there is no network, in the words of the person who walks it. */
export async function fieldPack(
  db: Kysely<Database>,
  person: Person,
  asked: readonly string[],
  { units, decimalMark }: Preferences,
  timeZone: string,
  at: Date,
): Promise<SentPack> {
  const { lines, taken } = await takeAlong(db, person, asked, at);
  const day = (moment: Date) => dayMonthYear(moment, timeZone);
  const asLine = (l: (typeof lines)[number]) => ({
    code: l.code,
    name: l.name,
    site: l.site,
    customer: l.customer,
    lastVisit: l.lastVisit?.toISOString() ?? null,
    due: { at: l.due.at.toISOString(), why: l.due.why },
  });
  return {
    user: person.username,
    who: person.id,
    name: person.name,
    units,
    timeZone,
    decimalMark,
    serverMs: at.getTime(),
    lines: lines.map(asLine),
    structures: taken.map(({ line, exposure, zones, photos, round }) => ({
      ...asLine(line),
      exposure: exposure.join(", ").replaceAll("-", " "),
      round,
      zones: zones.map((z) => ({
        name: z.name,
        what: z.what,
        place: zonePlace(z),
        last: zoneFound(z, units, day),
        visits: z.captures.slice(0, VISITS_SHOWN).map((c) => ({
          at: c.at.toISOString(),
          by: c.by,
          said: say({ zone_visit: [{ record_id: c.recordId, ...c.row }] }, { units, name: () => "", count: () => 0 }),
        })),
        protection: z.verdict.protection,
        appearance: z.verdict.appearance,
        lengthMm: z.lengthMm,
        photo: photos.get(z.name.toLowerCase()) ?? null,
      })),
    })),
  };
}
