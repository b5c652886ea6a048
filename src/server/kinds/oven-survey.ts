import type { Kysely } from "kysely";
import { ovenSurvey } from "@/core/cure";
import type { Database } from "@/db/schema";
import { ovenNamed } from "../cure/oven-named";
import { refuse } from "../outcome";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"oven-survey"> = {
  "oven-survey": ({ db }, entry) => ovenSurveyed(db, entry),
};

/** A survey of an oven, worked out before it is kept. Failures: `unknown-oven-name`, `value-given-twice`, those of `ovenSurvey`. */
async function ovenSurveyed(db: Kysely<Database>, entry: Of<"oven-survey">): Promise<Made> {
  const oven = await ovenNamed(db, entry.oven, entry.happenedAt);
  if (!oven) return refuse({ kind: "unknown-oven-name", name: entry.oven });
  const names = entry.places.map((p) => p.place);
  const twice = names.find((n, i) => names.indexOf(n) !== i);
  if (twice) return refuse({ kind: "value-given-twice", parameter: twice });
  const survey = ovenSurvey(
    entry.places.map(({ place, timeS, tempC }) => ({ place, trace: { timeS, tempC } })),
    entry.setPointC,
    [entry.holdFromS, entry.holdToS],
    entry.doorAtS,
  );
  if (!survey.ok) return refuse(survey.error);
  return {
    ok: true,
    where: {},
    grade: "measured",
    details: {
      oven_survey: [
        {
          oven_id: oven.id,
          set_point_c: entry.setPointC,
          hold_from_s: entry.holdFromS,
          hold_to_s: entry.holdToS,
          door_at_s: entry.doorAtS,
          note: entry.note || null,
        },
      ],
      survey_place: entry.places.map(({ place, timeS, tempC }, i) => ({
        ordinal: i + 1,
        place,
        time_s: timeS,
        temp_c: tempC,
      })),
    },
  };
}
