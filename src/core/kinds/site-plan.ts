import * as v from "valibot";
import { entry, filled, text, uuid } from "./fields";
import { defineKind } from "./kind";

/** Of the plan’s width and height. */
const share = v.pipe(
  v.number("is not a number"),
  v.finite("is not a number"),
  v.minValue(0, "is left or above of it"),
  v.maxValue(1, "is right or below of it"),
);
const place = v.tuple([share, share]);
/** What is drawn on a site plan, and where its structures stand. */
export const sitePlanDocument = v.object({
  lines: v.pipe(
    v.array(v.pipe(v.array(place), v.minLength(2, "has only one point"), v.maxLength(400))),
    v.maxLength(300, "are more than 300"),
  ),
  words: v.pipe(v.array(v.object({ at: place, text: filled(40) })), v.maxLength(100, "are more than 100")),
  marks: v.pipe(v.array(v.object({ structure: filled(40), at: place })), v.maxLength(500, "are more than 500")),
});
export type SitePlanDocument = v.InferOutput<typeof sitePlanDocument>;

/** The plan of a site: drawn by hand, or over a picture of one’s own; said anew it is as it was said last. */
export const sitePlan = defineKind({
  kind: "site-plan",
  tables: {
    site_plan: {
      customer_id: "uuid",
      site: "text",
      /** The photo record that it is drawn over; null on blank paper. */
      picture: "uuid?",
      document: "jsonb",
      note: "text?",
    },
  },
  change: true,
  superseded: "by-correction",
  entries: {
    "site-plan": {
      may: "inspect",
      schema: entry("site-plan", {
        /** Any structure of the site. */
        structure: filled(40),
        picture: v.optional(v.nullable(uuid), null),
        document: sitePlanDocument,
        note: text(200),
      }),
    },
  },
});
