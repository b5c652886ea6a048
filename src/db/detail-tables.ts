import { type DetailTables, detailTables as known } from "@/core/kinds";
import type { DetailTable } from "@/core/kinds/rows";

/**
 * The typed details of each record kind, from the kinds themselves: column → PostgreSQL type, "?" where it may be null.
 * Insertion, the hash of a record's content, export and the row types all read this, so that they cannot drift apart.
 */
export const detailTables = known as unknown as DetailTables & Record<string, DetailTables[keyof DetailTables]>;

export type { DetailRow, DetailTable, Json, NewDetail } from "@/core/kinds/rows";

export const detailTableNames = (): DetailTable[] => Object.keys(detailTables) as DetailTable[];
