import type { DetailRow, DetailTable } from "@/core/kinds/rows";
import type { UnitSystem } from "@/core/units";

/** Detail rows by table, as they were stored; of tables with very many rows only their count. */
export type SaidDetails = { readonly [T in DetailTable]?: readonly DetailRow<T>[] };
export type Saying = {
  readonly units: UnitSystem;
  /** What is called by an id: a lot, an oven, an upkeep; empty where it is not known. */
  readonly name: (id: string | null | undefined) => string;
  /** Rows of a table that were only counted. */
  readonly count: (table: string) => number;
};
export type Say = (details: SaidDetails, saying: Saying) => string;

/** A code as words: “scuff-and-recoat” reads “scuff and recoat”. */
export const words = (code: string | null | undefined): string => (code ?? "").replaceAll("-", " ");
