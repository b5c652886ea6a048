import type { DetailTables } from ".";

export type DetailTable = keyof DetailTables & string;

type Scalar = {
  text: string;
  uuid: string;
  int: number;
  float8: number;
  boolean: boolean;
  timestamptz: Date;
  date: string;
  "float8[]": (number | null)[];
  jsonb: Json;
};
export type Json = string | number | boolean | null | readonly Json[] | { readonly [key: string]: Json };
type Columns<T extends DetailTable> = DetailTables[T];
type Required<C> = {
  [K in keyof C as C[K] extends `${string}?` ? never : K]: C[K] extends keyof Scalar ? Scalar[C[K]] : never;
};
type Optional<C> = {
  [K in keyof C as C[K] extends `${string}?` ? K : never]?: C[K] extends `${infer S extends keyof Scalar}?`
    ? Scalar[S] | null
    : never;
};
type Plain<T> = { -readonly [K in keyof T]: T[K] };
/** A detail row as it is written; `record_id` is added when it is stored. */
export type NewDetail<T extends DetailTable> = Plain<Required<Columns<T>> & Optional<Columns<T>>>;
type Stored<C> = {
  -readonly [K in keyof C]: C[K] extends `${infer S extends keyof Scalar}?`
    ? Scalar[S] | null
    : C[K] extends keyof Scalar
      ? Scalar[C[K]]
      : never;
};
/** A detail row as it is read. */
export type DetailRow<T extends DetailTable> = { record_id: string } & Stored<Columns<T>>;
