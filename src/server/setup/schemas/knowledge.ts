import * as v from "valibot";
import { loadKnowledge } from "@/core/diagnosis";

const knowledge = loadKnowledge();
const cause = v.picklist([...knowledge.causes.keys()], "is no cause");
const finding = v.picklist([...knowledge.findings.keys()], "is no finding");
const defect = v.picklist([...knowledge.defects.keys()], "is no defect");
const weight = v.pipe(v.number("is no number"), v.minValue(-5, "is under −5"), v.maxValue(5, "is over 5"));

/** What a site knows otherwise than the knowledge that ships, from when it learns, and what it watches for. */
export const siteKnowledge = v.object({
  weights: v.array(
    v.object({
      defect: v.nullable(defect),
      cause,
      finding,
      whenPresent: weight,
      whenAbsent: weight,
      because: v.pipe(v.string(), v.trim(), v.minLength(8, "is too short: say why"), v.maxLength(300)),
    }),
  ),
  bases: v.array(
    v.object({
      defect,
      cause,
      weight: v.pipe(v.number("is no number"), v.minValue(0.1, "is under 0.1"), v.maxValue(100, "is over 100")),
    }),
  ),
  /** Of a defect, the moment from which confirmed cases count: what was learned before was put back. */
  learnsFrom: v.array(v.object({ defect, from: v.pipe(v.string(), v.isoTimestamp("is no moment")) })),
  watches: v.array(
    v.object({
      id: v.pipe(v.string(), v.uuid()),
      defect,
      cause,
      /** All of these at once: what a rack met is over or under a figure, in the units of the record. */
      when: v.pipe(
        v.array(
          v.object({
            variable: v.pipe(v.string(), v.minLength(2), v.maxLength(120)),
            over: v.nullable(v.pipe(v.number(), v.finite())),
            under: v.nullable(v.pipe(v.number(), v.finite())),
          }),
        ),
        v.minLength(1, "is empty: name what is watched"),
        v.maxLength(4),
      ),
      fromCase: v.pipe(v.string(), v.maxLength(20)),
      stopped: v.optional(v.boolean(), false),
    }),
  ),
});
