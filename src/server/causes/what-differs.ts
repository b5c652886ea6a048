import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { now } from "../now";
import type { Person } from "../sign-in/roles";
import { type Explored, explore } from "./explore";

export type WhatDiffers = Explored & { readonly from: Date; readonly to: Date };

const REACH_DAYS = 30;
const DAY_MS = 86_400_000;

/**
 * What is different about the racks that show a defect, on the line or in a structure that their pieces went into, against
 * those hung within thirty days that do not, over all that is recorded of their passage. Null where no rack, or every one,
 * shows it. O(racks · variables).
 */
export async function whatDiffers(
  db: Kysely<Database>,
  person: Person,
  about: { readonly defect: string; readonly hungAt: Date },
): Promise<WhatDiffers | null> {
  const from = new Date(about.hungAt.getTime() - REACH_DAYS * DAY_MS);
  const to = new Date(about.hungAt.getTime() + REACH_DAYS * DAY_MS);
  const found = await explore(
    db,
    person,
    { defect: about.defect, partId: null, from, to, where: null, by: null },
    now(),
  );
  return found === null || "failure" in found ? null : { ...found, from, to };
}
