import * as v from "valibot";
import { filmRules } from "../thickness";

import { entry, filled, number, whole } from "./fields";
import { defineKind } from "./kind";

/** What is to be read on a rack. */
export const filmPlan = defineKind({
  kind: "film-plan",
  tables: {
    film_plan: {
      rule: "text",
      area_m2: "float8",
      seed: "int",
      spots: "int",
      places: "int",
      measured: "jsonb",
      lot: "int?",
      sample: "int?",
      accept_most: "int?",
      aql: "float8?",
      rql: "float8?",
      producer_risk: "float8?",
      consumer_risk: "float8?",
      pull: "jsonb?",
    },
  },
  change: false,
  superseded: "by-correction",
  entries: {
    /** What is to be read on a rack: places by rule and area, pieces by risk, both from a seed that is kept. */
    "film-plan": {
      may: "inspect",
      schema: entry("film-plan", {
        rack: filled(20),
        rule: v.picklist(filmRules),
        areaM2: v.pipe(number(0, 1_000_000), v.gtValue(0, "is not over 0")),
        inFt2: v.boolean(),
        seed: whole(0, 2_147_483_000),
        risks: v.nullable(
          v.object({
            lot: whole(1, 1_000_000),
            aql: number(0, 0.99),
            rql: number(0, 0.99),
            producerRisk: number(0.0001, 0.5),
            consumerRisk: number(0.0001, 0.5),
          }),
        ),
      }),
    },
  },
});
