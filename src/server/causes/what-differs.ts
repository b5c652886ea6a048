import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { now } from "../now";
import type { Person } from "../sign-in/roles";
import { type Explored, explore } from "./explore";

export type WhatDiffers = Explored & {
  readonly from: Date;
  readonly to: Date;
  /** Of racks of the same part alone: where one part shows it, everything of that part would stand out. */
  readonly ofPart: boolean;
};

const REACH_DAYS = 30;
const DAY_MS = 86_400_000;

/** So many of each side of one part are enough to compare within it. */
const LEAST_AFFECTED = 2;
const LEAST_OTHERS = 5;

/**
 * What is different about the racks that show a defect, on the line or in a structure that their pieces went into, against
 * those hung within thirty days that do not, over all that is recorded of their passage; within the part, where that has
 * enough of both. Null where no rack, or every one, shows it. O(racks · variables).
 */
export async function whatDiffers(
  db: Kysely<Database>,
  person: Person,
  about: { readonly defect: string; readonly hungAt: Date; readonly partId?: string },
): Promise<WhatDiffers | null> {
  const from = new Date(about.hungAt.getTime() - REACH_DAYS * DAY_MS);
  const to = new Date(about.hungAt.getTime() + REACH_DAYS * DAY_MS);
  const of = async (partId: string | null) => {
    const found = await explore(db, person, { defect: about.defect, partId, from, to, where: null, by: null }, now());
    return found === null || "failure" in found ? null : { ...found, from, to, ofPart: partId !== null };
  };
  const within = about.partId ? await of(about.partId) : null;
  return within && within.contrast.affected >= LEAST_AFFECTED && within.contrast.others >= LEAST_OTHERS
    ? within
    : of(null);
}
