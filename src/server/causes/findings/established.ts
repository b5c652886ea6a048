import type { FindingState } from "@/core/diagnosis";
import type { EvidenceGrade } from "@/core/verdict";
import type { RackFile } from "../../rack/load-rack";

/** A finding as the record establishes it, with what was found and the records it rests on. */
export type EstablishedFinding = {
  readonly finding: string;
  readonly state: FindingState;
  readonly grade: EvidenceGrade;
  readonly what: FoundWhat;
  readonly sources: readonly string[];
  /** Of a case of several racks: on how many of those looked into it is so. */
  readonly among?: { readonly withIt: number; readonly of: number };
};
export type FoundWhat =
  | { readonly kind: "never-recorded" }
  | { readonly kind: "not-called-for" }
  | { readonly kind: "job-says"; readonly substrate: string; readonly feature: string | null }
  | {
      readonly kind: "value";
      readonly quantity: string;
      readonly value: number;
      readonly unit: string;
      readonly lower: number | null;
      readonly upper: number | null;
      readonly where: string;
    }
  | { readonly kind: "seen"; readonly what: string }
  | { readonly kind: "done" | "not-done"; readonly step: string }
  | { readonly kind: "option-declined"; readonly what: string; readonly by: string; readonly on: string }
  | { readonly kind: "exposure"; readonly exposure: readonly string[] };

/** Adds one finding to those established. */
export type Add = (
  finding: string,
  state: FindingState,
  grade: EvidenceGrade,
  what: FoundWhat,
  sources?: readonly string[],
) => void;

/** An option that was offered and turned down, by its code; undefined where it was not. */
export const declinedOption = (rack: RackFile, code: string) =>
  rack.job.plan.offered.find((o) => o.code === code && o.state === "declined");
