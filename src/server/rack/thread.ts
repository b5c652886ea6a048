import type { RecordTable } from "@/db/schema";
import type { StoredDetails } from "../record/read-details";

/** A record on a rack's thread, with what it says. */
export type ThreadRecord = {
  readonly base: RecordTable;
  readonly details: StoredDetails;
  /** Who made it, by name. */
  readonly by: string;
  /** The record that corrects this one, if any. */
  readonly supersededBy: string | null;
};
