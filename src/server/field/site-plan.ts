import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { type SitePlanDocument, sitePlanDocument } from "@/core/kinds";
import { personName } from "@/db/queries/person-name";
import { stands } from "@/db/queries/stands";
import type { Database } from "@/db/schema";
import type { Person } from "../sign-in/roles";
import { findStructure } from "./find-structure";
import { type StructureLine, structuresByDue } from "./structure-facts";

export type SitePlanFile = {
  readonly site: string;
  readonly structures: readonly StructureLine[];
  /** As it was said last; null where none was drawn. */
  readonly plan: {
    readonly document: SitePlanDocument;
    /** Of the picture it is drawn over. */
    readonly picture: { readonly recordId: string; readonly fileId: string } | null;
    readonly by: string;
    readonly at: Date;
  } | null;
  /** Photos of its structures that it can be drawn over, the newest first. */
  readonly pictures: readonly {
    readonly recordId: string;
    readonly fileId: string;
    readonly caption: string;
    readonly at: Date;
  }[];
};

/** So many photos are offered to draw over. */
const MOST_PICTURES = 24;

/** The site of a structure, its plan and all that stands there; null where the structure is not this person's to see. */
export async function sitePlanOf(db: Kysely<Database>, person: Person, code: string): Promise<SitePlanFile | null> {
  const own = await findStructure(db, person, code);
  if (!own) return null;
  const [structures, plan, pictures] = await Promise.all([
    structuresByDue(db, person, { customerId: own.customer_id, site: own.site }),
    db
      .selectFrom("record")
      .innerJoin("site_plan", "site_plan.record_id", "record.id")
      .leftJoin("record as pic", "pic.id", "site_plan.picture")
      .select([
        "site_plan.document",
        "site_plan.picture",
        "pic.file_id",
        "record.happened_at",
        personName("record.by_user").as("by"),
      ])
      .where("site_plan.customer_id", "=", own.customer_id)
      .where(sql`lower(site_plan.site)`, "=", own.site.toLowerCase())
      .where(stands("record.id"))
      .orderBy("record.happened_at", "desc")
      .orderBy("record.id", "desc")
      .limit(1)
      .executeTakeFirst(),
    db
      .selectFrom("record")
      .innerJoin("photo", "photo.record_id", "record.id")
      .innerJoin("structure", "structure.id", "record.structure_id")
      .select(["record.id", "record.file_id", "record.happened_at", "photo.caption"])
      .where("record.kind", "=", "photo")
      .where("record.file_id", "is not", null)
      .where("structure.customer_id", "=", own.customer_id)
      .where(sql`lower(structure.site)`, "=", own.site.toLowerCase())
      .orderBy("record.happened_at", "desc")
      .limit(MOST_PICTURES)
      .execute(),
  ]);
  return {
    site: own.site,
    structures,
    plan: plan
      ? {
          document: v.parse(sitePlanDocument, plan.document),
          picture: plan.picture && plan.file_id ? { recordId: plan.picture, fileId: plan.file_id } : null,
          by: plan.by,
          at: plan.happened_at,
        }
      : null,
    pictures: pictures.flatMap((p) =>
      p.file_id ? [{ recordId: p.id, fileId: p.file_id, caption: p.caption, at: p.happened_at }] : [],
    ),
  };
}
