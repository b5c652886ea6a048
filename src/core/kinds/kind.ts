import type { GenericSchema } from "valibot";

/** What a person may do; which role may what is the server's. */
export type Ability = "look" | "log-line" | "inspect" | "release" | "administer";

/** PostgreSQL types of detail columns; "?" where it may be null. */
export type ColumnType =
  `${"text" | "uuid" | "int" | "float8" | "boolean" | "timestamptz" | "date" | "float8[]" | "jsonb"}${"" | "?"}`;
export type Columns = { readonly [column: string]: ColumnType };

/** A kind of record, told once: entry schema, insertion, hash, export, Records' filter and docs follow from it. */
export type Kind = {
  readonly kind: string;
  /** Its typed detail tables: column → type. A table with an `ordinal` keeps its rows in that order. */
  readonly tables: { readonly [table: string]: Columns };
  /** Tables that may hold very many rows: where records are listed they are counted, not read. */
  readonly counted?: readonly string[];
  /** Tables of another kind that it writes rows to as well. */
  readonly also?: readonly string[];
  /** Whether it changes how things stand, as against the run of readings and passages: the shift before is told of it. */
  readonly change: boolean;
  /** What a later record of the same kind may do to it: correct it with a reason, follow it in the ordinary course of things as well, or nothing. */
  readonly superseded: "by-correction" | "in-course-too" | "never";
  /** What people and instruments enter to make it, each with who may; none where a use case of its own makes it. */
  readonly entries: { readonly [entry: string]: { readonly may: Ability; readonly schema: GenericSchema } };
};

export const defineKind = <const K extends Kind>(kind: K): K => kind;
