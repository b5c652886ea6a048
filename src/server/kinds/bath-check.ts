import type { Kysely } from "kysely";
import { questionBathValue, readsLikeAnother, titrationFactor } from "@/core/bath";
import type { Database } from "@/db/schema";
import { recentValues, standingOf } from "../baths/recent-values";
import { refuse } from "../outcome";
import { setupAt } from "../setup/setup-data";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"bath-check"> = {
  "bath-check": ({ db }, entry) => bathCheck(db, entry),
};

/**
 * A round of a bath. Refused on an empty tank; a value that looks like a slip of unit or point, and a round that reads
 * like another tank, are asked back once (`value-in-question`, `tank-in-question`) and stand when the person is sure.
 */
async function bathCheck(db: Kysely<Database>, entry: Of<"bath-check">): Promise<Made> {
  const baths = await setupAt(db, "bath", entry.happenedAt);
  const bath = [...baths.values()].find((b) => b.code.toLowerCase() === entry.bath.trim().toLowerCase());
  if (!bath) return refuse({ kind: "unknown-bath", name: entry.bath });
  const names = entry.values.map((x) => x.parameter);
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice) return refuse({ kind: "value-given-twice", parameter: twice });
  const [standing, seen] = await Promise.all([
    standingOf(db, bath.id, entry.happenedAt),
    recentValues(db, [...baths.values()], entry.happenedAt),
  ]);
  if (standing.emptySince)
    return refuse({ kind: "bath-empty", bath: bath.code, since: standing.emptySince.toISOString() });
  const mine = seen.find((s) => s.code === bath.code);
  if (mine && !entry.sure) {
    for (const { parameter, value } of entry.values) {
      const question = questionBathValue(parameter, value, mine.before[parameter] ?? []);
      if (question) return refuse({ kind: "value-in-question", bath: bath.code, ...question });
    }
    const other = readsLikeAnother(
      entry.values,
      mine,
      seen.filter((s) => s !== mine),
    );
    if (other) return refuse({ kind: "tank-in-question", bath: bath.code, other });
  }
  return {
    ok: true,
    where: { bathId: bath.id },
    details: {
      bath_check: entry.values.map((x, i) => ({
        ordinal: i + 1,
        parameter: x.parameter,
        value: x.value,
        typed: x.typed,
        typed_unit: x.typedUnit,
        titrant_ml: x.titrantMl,
        blank_ml: x.blankMl,
        factor: x.titrantMl === null ? null : titrationFactor(bath.data, x.parameter),
      })),
    },
  };
}
