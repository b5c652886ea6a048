import type { Failure } from "@/core/result";

/** What every use case that writes comes back with: done, with what there is to say of it, or a refusal by name with its values. */
export type Outcome<T extends object = object> =
  | ({ readonly ok: true } & Readonly<T>)
  | { readonly ok: false; readonly failure: Failure };
export const refuse = (failure: Failure): { readonly ok: false; readonly failure: Failure } => ({ ok: false, failure });
/** What storing a record comes to: its id, and whether it was there already. */
export type EntryOutcome = Outcome<{ readonly recordId: string; readonly already: boolean }>;
