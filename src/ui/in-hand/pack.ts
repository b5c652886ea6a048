import type { ClockSeen, VisitDue, ZoneKind } from "@/core/field";
import type { DecimalMark, UnitSystem } from "@/core/units";
import type { VerdictResult } from "@/core/verdict";

/** A photo of a zone that was taken at an earlier visit. */
export type PackPhoto = { readonly fileId: string; readonly at: string };
export type PackZone = {
  readonly name: string;
  readonly what: ZoneKind;
  /** What it is and where, in a line. */
  readonly place: string;
  /** What was read there last, in a line; each visit before it. */
  readonly last: string;
  readonly visits: readonly { readonly at: string; readonly by: string; readonly said: string }[];
  readonly protection: VerdictResult;
  readonly appearance: VerdictResult;
  readonly lengthMm: number | null;
  readonly photo: PackPhoto | null;
};
export type PackLine = {
  readonly code: string;
  readonly name: string;
  readonly site: string;
  readonly customer: string;
  readonly lastVisit: string | null;
  readonly due: { readonly at: string; readonly why: VisitDue["why"] };
};
export type PackStructure = PackLine & {
  readonly exposure: string;
  readonly zones: readonly PackZone[];
  readonly round: { readonly id: string; readonly done: readonly string[] };
};
/** What a round needs where there is no network, for one person; kept in the browser's database. */
export type Pack = {
  readonly user: string;
  readonly who: string;
  readonly name: string;
  readonly units: UnitSystem;
  readonly timeZone: string;
  readonly decimalMark: DecimalMark | null;
  readonly lines: readonly PackLine[];
  readonly structures: readonly PackStructure[];
  /** The server's time when it was taken along, and the device's. */
  readonly clock: ClockSeen;
};
/** As the server sends it: the device puts its own time beside. */
export type SentPack = Omit<Pack, "clock"> & { readonly serverMs: number };
